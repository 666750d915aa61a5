import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import {
  allInside,
  apartBeside,
  backwards,
  isClosed,
  nameOf,
  nextEntry,
  nextToFit,
  openAssembly,
  openLines,
  undoable,
  whyNotFitted,
} from "./strip-down";
import { STRIP_KINDS, type StripEntry, type StripKind } from "./strip-entry";
import { readStripLine } from "./strip-line";

const AT = "2026-11-20T10:00:00.000Z";
/** A log made by one key after the other; "up" ends an assembly. */
function logged(...keys: Array<StripKind | "up">): StripEntry[] {
  const log: StripEntry[] = [];
  for (const key of keys)
    if (key === "up") openAssembly(log)!.apartAt = AT;
    else log.push(nextEntry(log, key, { id: `e${log.length + 1}`, jobId: "j1", at: AT }));
  return log;
}
const fit = (log: StripEntry[], ...ids: string[]) =>
  log.map((one) => (ids.includes(one.id) ? { ...one, fittedAt: AT } : one));
const ids = (log: readonly StripEntry[]) => log.map(({ id }) => id);

describe("the order in which a machine comes apart", () => {
  it("an entry belongs to the innermost assembly that is being taken apart", () => {
    const log = logged("assembly", "screw", "assembly", "washer", "up", "clip", "up", "wire");
    expect(log.map(({ inside }) => inside)).toEqual([null, "e1", "e1", "e3", "e1", null]);
    expect(ids(allInside(log, "e1"))).toEqual(["e2", "e3", "e4", "e5"]);
  });

  it("a second assembly beside one that lies apart is warned of, one inside it is not", () => {
    const log = logged("assembly", "screw", "up", "assembly");
    expect(ids(apartBeside(log, log[2]))).toEqual(["e1"]);
    const inner = logged("assembly", "screw", "assembly");
    expect(apartBeside(inner, inner[2])).toEqual([]);
    const closed = fit(log, "e1", "e2");
    expect(apartBeside(closed, closed[2])).toEqual([]);
  });

  it("the last entry can be undone as long as nothing was done with it", () => {
    const log = logged("screw", "washer");
    expect(undoable(log)!.id).toBe("e2");
    expect(undoable(fit(log, "e2"))).toBeNull();
    expect(undoable([])).toBeNull();
  });
});

describe("reassembly", () => {
  const log = logged("assembly", "screw", "assembly", "washer", "belt", "up", "up", "clip");

  it("is the log backwards", () => {
    expect(ids(backwards(log))).toEqual(["e6", "e5", "e4", "e3", "e2", "e1"]);
    expect(nextToFit(log)!.id).toBe("e6");
    expect(nextToFit(fit(log, "e6", "e5"))!.id).toBe("e4");
  });

  it("a forgotten washer is noticed: its assembly cannot be closed, nor the one around it", () => {
    const forgotten = fit(log, "e6", "e5", "e2");
    expect(whyNotFitted(forgotten, forgotten[2])).toMatch(/one line is open \(washer 4\)/);
    expect(whyNotFitted(forgotten, forgotten[0])).toMatch(/2 lines are open/);
    expect(nextToFit(forgotten)!.id).toBe("e4");
    const all = fit(log, ...ids(log));
    expect(all.every((one) => whyNotFitted(all, one) === null)).toBe(true);
    expect(isClosed(all, all[0])).toBe(true);
    expect(isClosed(fit(log, "e1"), fit(log, "e1")[0])).toBe(false);
  });

  it("what is missing is passed over, and holds its assembly open", () => {
    const missing = log.map((one) =>
      one.id === "e4" ? { ...one, trouble: { what: "missing" as const, at: AT } } : one,
    );
    const rest = fit(missing, "e6", "e5", "e2");
    expect(nextToFit(rest)).toBeNull();
    expect(ids(openLines(rest))).toEqual(["e1", "e3", "e4"]);
  });

  it("of any log: following the screen fits every line, each once, and none before what lies inside it", () => {
    const random = new SeededRandom(15);
    for (let run = 0; run < 200; run++) {
      const keys: Array<StripKind | "up"> = [];
      let depth = 0;
      for (let i = 0; i < 30; i++) {
        const up = depth > 0 && random.uniform() < 0.2;
        const kind = STRIP_KINDS[Math.floor(random.uniform() * STRIP_KINDS.length)];
        depth += up ? -1 : kind === "assembly" ? 1 : 0;
        keys.push(up ? "up" : kind);
      }
      let log = logged(...keys);
      const steps = log.length;
      for (let i = 0; i < steps; i++) {
        const next = nextToFit(log)!;
        expect(allInside(log, next.id).every(({ fittedAt }) => fittedAt !== null)).toBe(true);
        log = fit(log, next.id);
      }
      expect(openLines(log)).toEqual([]);
      expect(nextToFit(log)).toBeNull();
    }
  });
});

describe("a line as it is typed", () => {
  it.each<[StripKind, string, Partial<ReturnType<typeof readStripLine>>]>([
    [
      "screw",
      "M2.6x8 slotted x2, motor bracket",
      { thread: "M2.6", lengthMm: 8, heads: ["slotted"], count: 2, what: "motor bracket", where: null },
    ],
    [
      "screw",
      "corner, back cover 12 mm cross pan 4x",
      { what: "corner", where: "back cover", lengthMm: 12, heads: ["cross", "pan"], count: 4 },
    ],
    ["screw", "M2,6×8,5 hex socket", { thread: "M2.6", lengthMm: 8.5, heads: ["hex socket"], what: "" }],
    [
      "washer",
      "0,25 mm x2, under the flywheel, stays with the flywheel",
      { lengthMm: 0.25, count: 2, what: "under the flywheel", staysWith: "the flywheel" },
    ],
    [
      "slotted position",
      "motor bracket, mark at the scribed line",
      { what: "motor bracket", mark: "the scribed line" },
    ],
    [
      "wire",
      "black to the battery box, next time it breaks at its joint",
      { what: "black to the battery box", nextTime: "it breaks at its joint" },
    ],
    // words that are no figures stay words, and heads are those of screws
    ["spring", "x-shaped, in the slot", { what: "x-shaped", where: "in the slot", heads: [], count: 1 }],
    ["screw", "", { what: "", count: 1, lengthMm: null, heads: [] }],
    ["belt", ", ;, ", { what: "", where: null }],
    ["screw", "x0, x100", { what: "x0", where: "x100", count: 1 }],
  ])("%s: %s", (kind, text, expected) => expect(readStripLine(kind, text)).toMatchObject(expected));

  it("is never lost, whatever is typed: each word is somewhere in what was understood", () => {
    const random = new SeededRandom(4);
    const WORDS = [
      "M3x8",
      "x2",
      "8 mm",
      "cross",
      "left",
      "guide",
      ",",
      ";",
      "stays with",
      "mark",
      "next time",
      "ß",
      "7",
    ];
    for (let i = 0; i < 500; i++) {
      const text = Array.from({ length: 8 }, () => WORDS[Math.floor(random.uniform() * WORDS.length)]).join(
        " ",
      );
      const found = readStripLine("screw", text);
      expect(Number.isFinite(found.count)).toBe(true);
      const kept = JSON.stringify(found);
      for (const word of ["left", "guide", "ß"]) if (text.includes(word)) expect(kept).toContain(word);
    }
  });

  it("an entry without words is called by its kind and number", () => {
    const [first, second] = logged("screw", "washer");
    expect(nameOf(second)).toBe("washer 2");
    expect(nameOf({ ...first, line: "M2x4, bracket" })).toBe("screw bracket");
    expect(nameOf({ ...first, kind: "belt", line: "main belt" })).toBe("main belt");
    expect(nameOf({ ...first, kind: "assembly", line: "motor and drive" })).toBe("motor and drive");
  });
});
