import { describe, expect, it } from "vitest";
import { fmTone, sumOf } from "./fm-tone";
import { harmonicsOf } from "./steady-harmonics";

const RATE = 48000;

describe("harmonics of a perfectly steady tone", () => {
  it.each([-40, -80, -110])("a third harmonic %i dB down", (db) => {
    const x = sumOf(fmTone(1, RATE, 1000.3, [], 0.5), fmTone(1, RATE, 3000.9, [], 0.5 * 10 ** (db / 20)));
    const { fundamentalDbfs, harmonicsDb, frequencyHz } = harmonicsOf(x, RATE, 1000);
    expect(frequencyHz).toBeCloseTo(1000.3, 3);
    expect(fundamentalDbfs).toBeCloseTo(-6.02, 2);
    expect(harmonicsDb[1]).toBeCloseTo(db, 1);
  });

  it("less than −130 dB of its own on a perfect tone", () => {
    const { harmonicsDb } = harmonicsOf(fmTone(1, RATE, 997, [], 0.5), RATE, 1000);
    expect(Math.max(...harmonicsDb)).toBeLessThan(-130);
  });

  it("refuses what is too short", () => {
    expect(() => harmonicsOf(new Float64Array(100), RATE, 1000)).toThrow(/fifty cycles/);
  });
});
