import { describe, expect, it } from "vitest";
import { biasKnown, type BiasReading, type BiasScrew } from "@/core/guidance/bias-screw";
import { sensitivityDb } from "@/core/guidance/bias-curves";
import { thoughtOut } from "./bias-thought";

const TONES = { middleHz: 315, highHz: 10_000, speedCmPerS: 4.76 };
const at = (biasDb: number, afterTurns: number): BiasReading => ({
  middleDb: sensitivityDb(biasDb, TONES.middleHz),
  highDb: sensitivityDb(biasDb, TONES.highHz),
  thirdDb: null,
  afterTurns,
});
const SCREW: BiasScrew = {
  about: "left",
  turns: [0.125],
  heard: [at(-2, 0)],
  beside: [],
  standing: at(-1, 1),
  tones: TONES,
  overBiasDb: null,
};
const KNOWN = biasKnown(SCREW);
const { shown, kept } = thoughtOut([SCREW], [KNOWN]);

describe("what was thought out of a bias screw", () => {
  it("is shown while its tones tremble, while they begin to move, and when they are logged", () => {
    const trembles = { ...at(-1, 1), highDb: at(-1, 1).highDb + 0.05 };
    expect(shown({ ...SCREW, standing: trembles })).toBe(KNOWN);
    expect(shown({ ...SCREW, standing: null })).toBe(KNOWN);
    expect(shown({ ...SCREW, heard: [...SCREW.heard, trembles] })).toBe(KNOWN);
  });

  it.each<[string, Partial<BiasScrew>]>([
    ["was turned", { turns: [0.125, 0.125] }],
    ["was heard once more", { heard: [at(-2, 0), at(-1.5, 1)] }],
    ["is logged no more", { heard: [] }],
    ["stands elsewhere", { standing: at(0.5, 1) }],
    ["is another one, or on another tape, or its turns are counted anew", { about: "left, chrome" }],
    ["is to be left by another figure", { overBiasDb: 3 }],
  ])("is not shown of one that %s", (_, change) => {
    expect(shown({ ...SCREW, ...change })).toBeNull();
  });

  it("is kept of just what was heard, worked out where it was not yet", () => {
    expect(kept(SCREW)).toBe(KNOWN);
    const trembles: BiasScrew = { ...SCREW, standing: { ...at(-1, 1), highDb: at(-1, 1).highDb + 0.05 } };
    expect(kept(trembles)).toEqual(biasKnown(trembles));
    expect(kept(trembles)).not.toEqual(KNOWN);
  });

  it("goes from thread to thread as it is", () => {
    expect(structuredClone(KNOWN)).toEqual(KNOWN);
  });

  it("is nothing where nothing was heard", () => {
    expect(() => biasKnown({ ...SCREW, heard: [], standing: null })).toThrow(RangeError);
  });
});
