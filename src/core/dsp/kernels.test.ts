import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import wabt from "wabt";
import { FFT_KERNEL } from "./fft-kernel";
import { convolve, FIR_KERNEL, firRow } from "./fir-kernel";
import { interpolateIn, interpolateMany, INTERPOLATOR_REACH } from "./sinc-interpolator";
import { SINC_KERNEL } from "./sinc-kernel";
import { SeededRandom } from "./seeded-random";
import { sampled } from "@/core/dsp/sampled";
import { largestDifference } from "@/testing/largest-difference";

it.each([
  ["fft-kernel", FFT_KERNEL],
  ["fir-kernel", FIR_KERNEL],
  ["sinc-kernel", SINC_KERNEL],
])("%s is what its source says", async (name, code) => {
  const { parseWat } = await wabt();
  const source = readFileSync(new URL(`./${name}.wat`, import.meta.url), "utf8");
  const { buffer } = parseWat(name, source, { simd: true }).toBinary({});
  expect(code).toBe(Buffer.from(buffer).toString("base64"));
});

it("values between samples are the same one by one and many at once", () => {
  const random = new SeededRandom(9);
  const samples = Float32Array.from({ length: 3000 }, () => random.normal());
  const span = samples.length - 2 * INTERPOLATOR_REACH - 1;
  for (const count of [1, 7, 2000]) {
    const at = sampled(count, () => INTERPOLATOR_REACH + span * random.uniform());
    const out = new Float64Array(count);
    interpolateMany(samples, at, out);
    const oneByOne = at.map((place) => interpolateIn(samples, place));
    expect(largestDifference(out, oneByOne)).toBeLessThan(5e-13);
  }
});

describe("the kernel of the filters", () => {
  it("sums as plain loops do, whatever stands around its samples", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 70 }),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 5 }),
        (taps, step, count, from) => {
          const random = new SeededRandom(100 * taps + count);
          const row = () => sampled(taps, () => random.normal());
          const [first, second] = [row(), row()];
          const length = (count - 1) * step + taps;
          const samples = new Float64Array(from + length).map(() => random.normal());
          // filled up with zeros, the rows reach beyond the samples: what was summed before must not come in
          convolve(new Float64Array(400).fill(NaN), 0, 1, [firRow(first)], {
            re: new Float64Array(300),
            im: new Float64Array(0),
          });
          const into = { re: new Float64Array(count), im: new Float64Array(count) };
          convolve(samples, from, step, [firRow(first), firRow(second)], into);
          const alone = { re: new Float64Array(count), im: new Float64Array(0) };
          convolve(samples, from, step, [firRow(first)], alone);
          const plain = (by: Float64Array, k: number) =>
            by.reduce((sum, tap, j) => sum + tap * samples[from + k * step + j], 0);
          for (let k = 0; k < count; k++) {
            expect(into.re[k]).toBeCloseTo(plain(first, k), 10);
            expect(into.im[k]).toBeCloseTo(plain(second, k), 10);
            expect(alone.re[k]).toBe(into.re[k]);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});
