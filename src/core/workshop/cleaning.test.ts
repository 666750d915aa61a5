import { describe, expect, it } from "vitest";
import {
  cleaningEntrySchema,
  cleaningText,
  currentSays,
  DONE,
  FOUND,
  lastEntry,
  SUBJECTS,
  toClean,
} from "./cleaning";
import type { MachinePart } from "./machine-part";

const part = (name: string): MachinePart => ({ name, tapeDiameterMm: 10, tolerancePercent: 2 });
const entry = (what: string, found: (typeof FOUND)[number], done: (typeof DONE)[number], using = "") =>
  cleaningEntrySchema.parse({
    id: `${what}${found}`,
    at: "2026-11-20T10:00:00.000Z",
    what,
    found,
    done,
    using,
  });

describe("what of a machine is cleaned", () => {
  it("its own parts by what they are, then what every machine has; cells only where it runs on them", () => {
    const all = toClean([part("pinch roller"), part("capstan"), part("motor"), part("take-up reel")], false);
    expect(all.slice(0, 4).map(({ subject }) => subject)).toEqual(["rubber", "metal", "motor", "bearing"]);
    expect(all.map(({ what }) => what)).toContain("heads");
    expect(all.map(({ what }) => what)).not.toContain("cell contacts");
    expect(toClean([], true).at(-1)).toEqual({ what: "cell contacts", subject: "cell contact" });
  });

  it("leaks are met by their chemistry, and both schools of rubber are named", () => {
    expect(SUBJECTS["cell contact"].using.join()).toMatch(/mild acid \(alkaline.*soda.*zinc/);
    expect(SUBJECTS.rubber.using.join()).toMatch(/rubber cleaner.*isopropyl/);
  });

  it("the last entry of a part counts, and is said in words", () => {
    const entries = [
      entry("capstan", "dirty", "left"),
      entry("heads", "clean", "left"),
      entry("capstan", "dirty", "cleaned", "isopropyl"),
    ];
    expect(cleaningText(lastEntry(entries, "capstan")!)).toBe("dirty; cleaned with isopropyl");
    expect(cleaningText(entries[0])).toBe("dirty; left");
    expect(lastEntry(entries, "motor")).toBeNull();
  });

  it("the current of a motor is said before and after it was run in, and what that means", () => {
    const motor = entry("motor", "dirty", "lubricated", "one drop of light oil at each bearing");
    expect(cleaningText({ ...motor, beforeMa: 142, afterMa: 118 })).toMatch(/; 142 → 118 mA$/);
    expect(cleaningText({ ...motor, beforeMa: 142 })).toMatch(/; 142 → \? mA$/);
    expect(currentSays({ beforeMa: 142, afterMa: 118 })).toMatch(/less/);
    expect(currentSays({ beforeMa: 142, afterMa: 140 })).toMatch(/what it drew before/);
    expect(currentSays({ beforeMa: 142, afterMa: 160 })).toMatch(/still drag/);
    expect(currentSays({ beforeMa: 142 })).toBeNull();
    for (const afterMa of [0, -3, NaN, Infinity, 1e6])
      expect(cleaningEntrySchema.safeParse({ ...motor, afterMa }).success).toBe(false);
  });
});
