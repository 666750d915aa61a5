import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MagnitudeCounts } from "./magnitude-counts";

const countsOf = (magnitudes: readonly number[]) => {
  const counts = new MagnitudeCounts();
  counts.add(Float64Array.from(magnitudes));
  return counts;
};

describe("what a share of counted magnitudes stays below", () => {
  it("is known to a thousandth of itself, of any number of them", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 1e-9, max: 1e3, noNaN: true }), { minLength: 1, maxLength: 300 }),
        fc.double({ min: 0.05, max: 0.99, noNaN: true }),
        (magnitudes, share) => {
          const sorted = magnitudes.toSorted((a, b) => a - b);
          const exact = sorted[Math.max(0, Math.ceil(share * sorted.length - 1e-9) - 1)];
          const found = countsOf(magnitudes).quantile(share);
          expect(Math.abs(found / exact - 1)).toBeLessThan(0.0011);
        },
      ),
    );
  });

  it("lies evenly within a step", () => {
    const even = Array.from({ length: 100_000 }, (_, i) => 1 + i * 1e-8);
    expect(countsOf(even).quantile(0.5)).toBeGreaterThanOrEqual(1);
    expect(countsOf(even).quantile(0.5)).toBeLessThan(1.001);
    expect(countsOf([0, 0, 0, 2]).quantile(0.5)).toBeLessThan(1e-30);
  });

  it("is not told of none", () => {
    expect(() => new MagnitudeCounts().quantile(0.5)).toThrow(RangeError);
  });
});
