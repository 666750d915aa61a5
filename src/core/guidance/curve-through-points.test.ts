import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { curveThroughPoints } from "./curve-through-points";

const SHAPE = (x: number) => 3 - 0.2 * x ** 2;
const STRAY = { stray: 0.5, length: 2.5, measured: 0.05 };

describe("a shape led through what was measured", () => {
  it("is the shape where nothing was measured, and far from what was", () => {
    expect(curveThroughPoints(SHAPE, [], STRAY)(1.7)).toBe(SHAPE(1.7));
    const curve = curveThroughPoints(SHAPE, [{ x: 0, y: 3.6 }], STRAY);
    expect(curve(0)).toBeGreaterThan(3.55);
    expect(curve(15)).toBeCloseTo(SHAPE(15), 6);
  });

  it("passes what was measured as near as it was measured", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -0.5, max: 0.5, noNaN: true }), { minLength: 1, maxLength: 4 }),
        (offs) => {
          // farther apart than the curve hangs together
          const points = offs.map((off, i) => ({ x: 6 * i, y: SHAPE(6 * i) + off }));
          const curve = curveThroughPoints(SHAPE, points, STRAY);
          for (const { x, y } of points) expect(Math.abs(curve(x) - y)).toBeLessThan(STRAY.measured);
        },
      ),
      { numRuns: 60 },
    );
  });

  it("takes the middle of two measurements of one place", () => {
    const curve = curveThroughPoints(
      SHAPE,
      [
        { x: 1, y: 2.9 },
        { x: 1, y: 3.1 },
      ],
      STRAY,
    );
    expect(curve(1)).toBeCloseTo(3, 2);
  });
});
