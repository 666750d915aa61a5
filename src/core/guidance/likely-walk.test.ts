import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import type { Residuals } from "./damped-steps";
import { likelyValues } from "./likely-walk";

/** Two values that hang together: their sum is known to ±1, their difference to ±0.1. */
const SUM_KNOWN: Residuals = {
  cost: ([a, b]) => (a + b - 6) ** 2 + ((a - b - 2) / 0.1) ** 2,
  normalEquations: ([a, b]) => ({
    squares: Float64Array.of(1 + 100, 1 - 100, 1 - 100, 1 + 100),
    slope: Float64Array.of(a + b - 6 + 100 * (a - b - 2), a + b - 6 - 100 * (a - b - 2)),
  }),
};
const BEST = { values: [4, 2], cost: 0 };

const deviation = (values: readonly number[], mean: number): number =>
  Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length);

describe("values that are about as likely as the best", () => {
  const walks = Array.from({ length: 12 }, (_, seed) =>
    likelyValues(SUM_KNOWN, BEST, new SeededRandom(seed + 1)),
  );

  it("begin with the best", () => {
    for (const walk of walks) expect(walk[0]).toEqual([4, 2]);
  });

  it("spread as far as the likelihood does, and no farther", () => {
    const others = walks.flatMap((walk) => walk.slice(1));
    const sums = others.map(([a, b]) => a + b);
    const differences = others.map(([a, b]) => a - b);
    expect(deviation(sums, 6)).toBeGreaterThan(0.85);
    expect(deviation(sums, 6)).toBeLessThan(1.15);
    expect(deviation(differences, 2)).toBeGreaterThan(0.085);
    expect(deviation(differences, 2)).toBeLessThan(0.115);
  });

  it("are the same for the same seed", () => {
    expect(likelyValues(SUM_KNOWN, BEST, new SeededRandom(3))).toEqual(walks[2]);
  });
});
