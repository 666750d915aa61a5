import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { sampled } from "@/core/dsp/sampled";
import { endlessTone, GRID_PER_SECOND, Tape, TapeSide, type PrintedBand } from "./tape";

const tone = (frequencyHz: number, levelDb = 0, seconds = 3): PrintedBand => ({
  kind: "tone",
  frequencyHz,
  levelDb,
  seconds,
});
const rms = (side: TapeSide, from: number, to: number, track: 0 | 1 = 0) => {
  const n = 4000;
  let sum = 0;
  for (let i = 0; i < n; i++) sum += side.read(track, from + ((to - from) * i) / n) ** 2;
  return Math.sqrt(sum / n);
};

describe("what a tape was made with", () => {
  const side = new TapeSide([
    tone(1000, -6),
    { ...tone(1000), correctionDb: { left: 1, right: -1 } },
    { kind: "silence", frequencyHz: 0, levelDb: -100, seconds: 2 },
    { kind: "noise", frequencyHz: 0, levelDb: -20, seconds: 4 },
    { kind: "sweep", frequencyHz: 100, toFrequencyHz: 1000, levelDb: -20, seconds: 4 },
  ]);

  it("stands one band after the other with a second between", () => {
    expect(rms(side, 0.6, 3.4)).toBeCloseTo(10 ** (-6 / 20) * Math.SQRT1_2, 2);
    expect(rms(side, 3.6, 4.4)).toBe(0);
    expect(rms(side, 4.6, 7.4, 0)).toBeCloseTo(10 ** (1 / 20) * Math.SQRT1_2, 2);
    expect(rms(side, 4.6, 7.4, 1)).toBeCloseTo(10 ** (-1 / 20) * Math.SQRT1_2, 2);
    expect(rms(side, 8.6, 10.4)).toBe(0);
    expect(rms(side, 11.6, 15.4)).toBeGreaterThan(0.05); // noise of −20 dB
    expect(rms(side, 16.6, 20.4)).toBeCloseTo(0.1 * Math.SQRT1_2, 2);
    expect(rms(side, 21, 25)).toBe(0);
    expect(side.printedSeconds).toBeCloseTo(20.5, 9);
  });

  it("goes on for ever where it was asked to, at its frequency", () => {
    const [a] = endlessTone(3150, 4.76, 3180, 120).sides;
    for (const at of [10, 3600, 36_000]) {
      const quarter = 0.25 / 3150;
      const here = Math.asin(Math.max(-1, Math.min(1, a.read(0, at + 0.5))));
      expect(a.read(0, at + 0.5) ** 2 + a.read(0, at + 0.5 + quarter) ** 2).toBeCloseTo(1, 4);
      expect(Math.abs(here)).toBeLessThanOrEqual(Math.PI / 2);
    }
  });
});

describe("what is recorded on it", () => {
  it("is read back at the grid points as it was written, and replaces what was there", () => {
    fc.assert(
      fc.property(fc.integer({ min: 100, max: 3 * GRID_PER_SECOND }), (from) => {
        const side = new TapeSide([tone(1000)]);
        const value = (i: number) => 0.2 * Math.sin((2 * Math.PI * 440 * i) / GRID_PER_SECOND);
        side.write(
          from,
          sampled(2000, value),
          sampled(2000, (i) => -value(i)),
          0,
        );
        for (const i of [200, 900, 1500.37]) {
          const at = (from + i) / GRID_PER_SECOND;
          expect(side.read(0, at)).toBeCloseTo(value(i), 3);
          expect(side.read(1, at)).toBeCloseTo(-value(i), 3);
        }
      }),
      { numRuns: 25 },
    );
  });

  it("leaves the rest of that second as it was printed", () => {
    const side = new TapeSide([tone(1000)]);
    const before = side.read(0, 1.9);
    side.write(GRID_PER_SECOND + 10, new Float64Array(1), new Float64Array(1), 0);
    expect(side.read(0, 1.9)).toBeCloseTo(before, 3);
    expect([...side.changed]).toEqual([1]);
  });

  it("belongs to one side", () => {
    const tape = new Tape({
      id: "t",
      name: "t",
      speedCmPerS: 4.76,
      t1Microseconds: 0,
      t2Microseconds: 70,
      bands: [],
      seconds: 30,
    });
    const half = new Float64Array(500).fill(0.5);
    tape.sides[0].write(48_000, half, half, 0);
    expect(tape.sides[0].read(0, 1.005)).toBeCloseTo(0.5, 2);
    expect(tape.sides[1].read(0, 1.005)).toBe(0);
    expect(tape.seconds).toBe(30);
  });
});
