import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { amplitudeSpectrum } from "./amplitude-spectrum";
import { lineThrough } from "./line-fit";
import { median } from "./quantile";
import { SeededRandom } from "./seeded-random";
import { summitNear } from "./spectral-summit";
import { sampled } from "@/core/dsp/sampled";

const number = fc.double({ min: -100, max: 100, noNaN: true });

describe("a straight line", () => {
  it("is found whatever it is, with no scatter about it", () => {
    fc.assert(
      fc.property(number, number, fc.integer({ min: 3, max: 60 }), (start, slope, n) => {
        const fit = lineThrough(Array.from({ length: n }, (_, i) => [i - 5, start + slope * (i - 5)]));
        expect(fit.start).toBeCloseTo(start, 6);
        expect(fit.slope).toBeCloseTo(slope, 6);
        expect(fit.scatter).toBeLessThan(1e-6);
      }),
    );
  });

  it("in noise is as uncertain as its slope scatters from one noise to the next", () => {
    const random = new SeededRandom(4);
    const fits = Array.from({ length: 400 }, () =>
      lineThrough(Array.from({ length: 50 }, (_, i) => [i, 2 * i + random.normal()])),
    );
    const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;
    const spread = Math.sqrt(mean(fits.map(({ slope }) => (slope - 2) ** 2)));
    expect(mean(fits.map(({ slopeSigma }) => slopeSigma)) / spread).toBeCloseTo(1, 0.5);
    expect(mean(fits.map(({ scatter }) => scatter))).toBeCloseTo(1, 1);
  });
});

describe("the summit of a spectrum", () => {
  it("is read between its bins, in place and height", () => {
    fc.assert(
      fc.property(fc.double({ min: 40, max: 80, noNaN: true }), (bin) => {
        const x = sampled(1024, (i) => 0.7 * Math.sin((2 * Math.PI * bin * i) / 1024));
        const { amplitude } = amplitudeSpectrum(x, 1024, 4096, 1024);
        let k = 1;
        for (let i = 1; i < amplitude.length; i++) if (amplitude[i] > amplitude[k]) k = i;
        const { shift, height } = summitNear(amplitude, k);
        expect(Math.abs((k + shift) / 4 - bin)).toBeLessThan(0.02);
        expect(Math.abs(height / 0.7 - 1)).toBeLessThan(0.01);
      }),
    );
  });

  it("beside nothing, or where there is none, is the bin itself", () => {
    expect(summitNear([0, 3, 0], 1)).toEqual({ shift: 0, height: 3 });
    expect(summitNear([3, 1, 3], 1)).toEqual({ shift: 0, height: 1 });
  });
});

it("the median is the middle one, of an even number the upper, and leaves its values alone", () => {
  const values = [5, 1, 4, 2, 3];
  expect(median(values)).toBe(3);
  expect(values).toEqual([5, 1, 4, 2, 3]);
  expect(median([4, 1, 3, 2])).toBe(3);
});
