import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { Sessions, type Session } from "./session";

const soon = () => new Promise<void>((resolve) => setTimeout(resolve, 0));

describe("a session", () => {
  it("closes what it owns, the newest first, once", async () => {
    const closed: string[] = [];
    const session = new Sessions().begin();
    session.own(() => closed.push("microphone"));
    session.own(() => closed.push("worker"));
    await Promise.all([session.close(), session.close()]);
    expect(closed).toEqual(["worker", "microphone"]);
  });

  it("closes at once what is opened after it has ended: a microphone that was allowed too late", async () => {
    const session = new Sessions().begin();
    await session.close();
    let open = true;
    session.own(() => (open = false));
    await session.ended;
    expect(open).toBe(false);
  });

  it("is over only when everything is closed, though something fails to", async () => {
    const sessions = new Sessions();
    const first = sessions.begin();
    let saved = false;
    first.own(async () => {
      await soon();
      saved = true;
    });
    first.own(() => {
      throw new Error("it would not close");
    });
    sessions.begin();
    await sessions.earlierEnded();
    expect(saved).toBe(true);
  });
});

describe("sources started and stopped in any order", () => {
  /** What a person does, with how long each answer of the machine takes. */
  const deed = fc.oneof(
    fc.record({ kind: fc.constant("start" as const), steps: fc.array(fc.nat(3), { maxLength: 4 }) }),
    fc.record({ kind: fc.constant("stop" as const) }),
    fc.record({ kind: fc.constant("wait" as const), turns: fc.nat(6) }),
  );

  it("there is never more than one, and in the end nothing is open but what belongs to the newest", async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(deed, { maxLength: 12 }), async (deeds) => {
        const sessions = new Sessions();
        const open = new Map<number, number>();
        const shown: number[] = [];
        const start = async (session: Session, steps: number[]) => {
          await sessions.earlierEnded();
          for (const turns of steps) {
            if (session.closed) return;
            for (let i = 0; i < turns; i++) await soon();
            open.set(session.id, (open.get(session.id) ?? 0) + 1);
            session.own(() => open.set(session.id, open.get(session.id)! - 1));
          }
          if (!session.closed) shown.push(session.id);
        };
        const begun: Array<Promise<void>> = [];
        let newest: Session | null = null;
        for (const one of deeds) {
          if (one.kind === "start") {
            newest = sessions.begin();
            begun.push(start(newest, one.steps));
          } else if (one.kind === "stop") void sessions.end();
          else for (let i = 0; i < one.turns; i++) await soon();
          // a session that was replaced never shows anything after the one that replaced it has begun
          expect(shown.every((id) => id <= (newest?.id ?? 0))).toBe(true);
        }
        await Promise.all(begun);
        await sessions.earlierEnded();
        await newest?.ended;
        for (const [id, count] of open) {
          const living = newest !== null && !newest.closed && id === newest.id;
          expect(count === 0 || living).toBe(true);
        }
        expect(shown).toEqual([...shown].sort((a, b) => a - b));
      }),
      { numRuns: 60 },
    );
  });
});
