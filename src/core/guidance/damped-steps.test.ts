import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fitByDampedSteps, type Residuals } from "./damped-steps";

/** y = a·eˣᵇ at some places, and that both values be about nought to ten. */
function growth(points: ReadonlyArray<{ x: number; y: number }>): Residuals {
  const PRIOR = 0.1;
  const moves = ([a, b]: readonly number[], x: number) => [Math.exp(b * x), a * x * Math.exp(b * x)];
  return {
    cost: ([a, b]) =>
      points.reduce(
        (sum, { x, y }) => sum + (y - a * Math.exp(b * x)) ** 2,
        (PRIOR * a) ** 2 + (PRIOR * b) ** 2,
      ),
    normalEquations: (values) => {
      const squares = Float64Array.of(PRIOR ** 2, 0, 0, PRIOR ** 2);
      const slope = Float64Array.from(values, (v) => PRIOR ** 2 * v);
      for (const { x, y } of points) {
        const m = moves(values, x);
        const misfit = y - values[0] * Math.exp(values[1] * x);
        m.forEach((one, i) => {
          slope[i] -= one * misfit;
          m.forEach((other, j) => (squares[2 * i + j] += one * other));
        });
      }
      return { squares, slope };
    },
  };
}

const PLACES = [-1, -0.4, 0.1, 0.7, 1.2];

describe("least squares by damped steps", () => {
  it("end where nothing near fits better, from wherever they start", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 4, noNaN: true }),
        fc.double({ min: -1.5, max: 1.5, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (a, b, off) => {
          const residuals = growth(PLACES.map((x) => ({ x, y: a * Math.exp(b * x) })));
          const { values, cost } = fitByDampedSteps(residuals, [a + off, b - off], 100);
          expect(cost).toBe(residuals.cost(values));
          for (const [i, by] of [
            [0, 0.02],
            [0, -0.02],
            [1, 0.02],
            [1, -0.02],
          ])
            expect(residuals.cost(values.with(i, values[i] + by))).toBeGreaterThan(cost);
        },
      ),
      { numRuns: 60 },
    );
  });

  it("leave the start as it is, and never end worse than they began", () => {
    const residuals = growth(PLACES.map((x) => ({ x, y: Math.cos(3 * x) })));
    const start = [3, 2];
    for (const rounds of [0, 1, 2, 5]) {
      const { cost } = fitByDampedSteps(residuals, start, rounds);
      expect(cost).toBeLessThanOrEqual(residuals.cost(start));
      if (rounds === 0) expect(cost).toBe(residuals.cost(start));
    }
    expect(start).toEqual([3, 2]);
  });
});
