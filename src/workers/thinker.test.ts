import { describe, expect, it } from "vitest";
import { Thinker } from "./thinker";
import type { WorkerOf } from "./start-worker";
import type { ThinkingApi } from "./thinking.worker";

/** A worker whose answers are given by hand, one after the other. */
function byHand() {
  const asked: Array<{ question: unknown; answer(value: unknown): void }> = [];
  let ended = false;
  const api = {
    think: (_: string, question: unknown) =>
      new Promise((resolve) => asked.push({ question, answer: resolve })),
  };
  const start = () =>
    ({ api, died: new Promise(() => {}), end: () => (ended = true) }) as unknown as WorkerOf<ThinkingApi>;
  return { asked, start, isEnded: () => ended };
}
const soon = () => new Promise((resolve) => setTimeout(resolve, 0));
const levels = (n: number) => ({ levels: [{ turns: n, levelDb: 0 }] });

describe("slow thinking", () => {
  it("is about the newest question only, and an answer that comes too late is dropped", async () => {
    const { asked, start } = byHand();
    const thinker = new Thinker(start);
    const first = thinker.ask("peak", "peak", levels(1));
    const second = thinker.ask("peak", "peak", levels(2));
    const third = thinker.ask("peak", "peak", levels(3));
    expect(await second).toBeNull();
    await soon();
    expect(asked.map(({ question }) => question)).toEqual([levels(1)]);
    asked[0].answer("late");
    expect(await first).toBeNull();
    await soon();
    expect(asked.at(-1)!.question).toEqual(levels(3));
    asked.at(-1)!.answer("right");
    expect(await third).toBe("right");
  });

  it("questions about different things wait for each other, and both are answered", async () => {
    const { asked, start } = byHand();
    const thinker = new Thinker(start);
    const left = thinker.ask("peak", "left", levels(1));
    const right = thinker.ask("peak", "right", levels(2));
    await soon();
    expect(asked).toHaveLength(1);
    asked[0].answer("l");
    expect(await left).toBe("l");
    await soon();
    asked[1].answer("r");
    expect(await right).toBe("r");
  });

  it("what is not wanted any more is dropped; after the end nothing is asked", async () => {
    const { asked, start, isEnded } = byHand();
    const thinker = new Thinker(start);
    const dropped = thinker.ask("peak", "peak", levels(1));
    await soon();
    thinker.drop("peak");
    asked[0].answer("unwanted");
    expect(await dropped).toBeNull();
    thinker.end();
    expect(isEnded()).toBe(true);
    expect(await thinker.ask("peak", "peak", levels(2))).toBeNull();
  });
});
