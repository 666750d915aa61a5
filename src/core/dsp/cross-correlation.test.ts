import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { CrossCorrelator } from "./cross-correlation";
import { SeededRandom } from "./seeded-random";

const RATE = 8000;
const LENGTH = 1024;

/** Sound of many lines within a band, at any place between its samples. */
function soundOf(seed: number): (at: number) => number {
  const random = new SeededRandom(seed);
  const lines = Array.from({ length: 40 }, () => ({
    omega: (2 * Math.PI * (200 + 2400 * random.uniform())) / RATE,
    phase: 2 * Math.PI * random.uniform(),
  }));
  return (at) => lines.reduce((sum, { omega, phase }) => sum + Math.cos(omega * at + phase), 0) / 40;
}
const piece = (sound: (at: number) => number, from: number, gain = 1) =>
  Float64Array.from({ length: LENGTH }, (_, i) => gain * sound(from + i));

describe("where two pieces of sound lie over one another", () => {
  const correlator = new CrossCorrelator(LENGTH, RATE, 150, 3000);

  it("is found between samples, whatever their levels", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1000 }),
        fc.double({ min: -20, max: 20, noNaN: true }),
        fc.double({ min: 0.01, max: 3, noNaN: true }),
        (seed, late, gain) => {
          const sound = soundOf(seed);
          const { lag, height } = correlator.peak(piece(sound, 0), piece(sound, late, gain), 40);
          expect(Math.abs(lag - late)).toBeLessThan(0.15);
          expect(height).toBeGreaterThan(0.8);
        },
      ),
      { numRuns: 60 },
    );
  });

  it("of the same sound is at once, and as high as it goes", () => {
    const { lag, height } = correlator.peak(piece(soundOf(3), 0), piece(soundOf(3), 0), 40);
    expect(lag).toBeCloseTo(0, 6);
    expect(height).toBeCloseTo(1, 6);
  });

  it("of strangers is nowhere near as high, and of nothing nought", () => {
    for (const seed of [1, 2, 3, 4, 5])
      expect(correlator.peak(piece(soundOf(seed), 0), piece(soundOf(seed + 50), 0), 40).height).toBeLessThan(
        0.5,
      );
    expect(correlator.peak(new Float64Array(LENGTH), piece(soundOf(1), 0), 40)).toEqual({
      lag: 0,
      height: 0,
    });
  });
});
