import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { Fft } from "./fft";
import { SeededRandom } from "./seeded-random";
import { sampled } from "@/core/dsp/sampled";
import { largestDifference } from "@/testing/largest-difference";

/** Straight from the definition. */
function plainly(input: Float64Array): Float64Array {
  const size = input.length / 2;
  const out = new Float64Array(2 * size);
  for (let k = 0; k < size; k++)
    for (let n = 0; n < size; n++) {
      const angle = (-2 * Math.PI * ((k * n) % size)) / size;
      out[2 * k] += input[2 * n] * Math.cos(angle) - input[2 * n + 1] * Math.sin(angle);
      out[2 * k + 1] += input[2 * n] * Math.sin(angle) + input[2 * n + 1] * Math.cos(angle);
    }
  return out;
}

function expectAlike(found: Float64Array, wanted: Float64Array): void {
  expect(found.length).toBe(wanted.length);
  expect(largestDifference(found, wanted)).toBeLessThan(5e-11);
}

const sizes = fc.integer({ min: 2, max: 8 }).map((power) => 2 ** power);
const noise = (length: number, seed: number): Float64Array => {
  const random = new SeededRandom(seed);
  return sampled(length, () => random.normal());
};

describe("the Fourier transform", () => {
  it("is what its definition says, and back again, whatever ran before it", () => {
    fc.assert(
      fc.property(sizes, sizes, fc.nat(1000), (size, other, seed) => {
        const [one, two] = [Fft.kept(size), Fft.once(other)];
        const x = noise(2 * size, seed);
        const [spectrum, back] = [one.createComplexArray(), one.createComplexArray()];
        one.transform(spectrum, x);
        expectAlike(spectrum, plainly(x));
        two.transform(two.createComplexArray(), noise(2 * other, seed + 1));
        one.inverseTransform(back, spectrum);
        expectAlike(back, x);
      }),
      { numRuns: 40 },
    );
  });

  it("of real values is the half of it that tells all, and the rest mirrors it", () => {
    fc.assert(
      fc.property(sizes, fc.nat(1000), (size, seed) => {
        const fft = Fft.kept(size);
        const x = noise(size, seed);
        const complex = new Float64Array(2 * size);
        x.forEach((value, i) => (complex[2 * i] = value));
        const spectrum = fft.createComplexArray();
        fft.realTransform(spectrum, x);
        expectAlike(spectrum.subarray(0, size + 2), plainly(complex).subarray(0, size + 2));
        fft.completeSpectrum(spectrum);
        expectAlike(spectrum, plainly(complex));
      }),
      { numRuns: 40 },
    );
  });

  it("of two signals at once gives each as if it were alone; what is missing at an end is nought", () => {
    const fft = Fft.kept(32);
    const [one, two] = [noise(32, 1), noise(20, 2)];
    const alone = (x: Float64Array) => {
      const out = fft.createComplexArray();
      const whole = new Float64Array(32);
      whole.set(x);
      fft.realTransform(out, whole);
      return out.subarray(0, 34);
    };
    const [left, right] = [new Float64Array(34), new Float64Array(34)];
    fft.ofTwo(one, two, { left, right });
    expectAlike(left, alone(one));
    expectAlike(right, alone(two));
  });

  it("filters around in a circle, as summing products does", () => {
    fc.assert(
      fc.property(sizes, fc.nat(1000), (size, seed) => {
        const fft = Fft.kept(size);
        const [x, taps] = [noise(size, seed), noise(size, seed + 1)];
        const gain = fft.createComplexArray();
        fft.realTransform(gain, taps);
        const filtered = x.slice();
        fft.filter(filtered, gain);
        const plain = x.map((_, i) => taps.reduce((sum, tap, j) => sum + tap * x[(i - j + size) % size], 0));
        expectAlike(filtered, plain);
      }),
      { numRuns: 40 },
    );
  });

  it("writes over what went in only where that is what comes out", () => {
    const fft = Fft.kept(64);
    const x = noise(128, 5);
    const kept = x.slice();
    fft.transform(fft.createComplexArray(), x);
    expect(x).toEqual(kept);
    fft.transform(x, x);
    expectAlike(x, plainly(kept));
  });

  it("has sizes that are powers of two from 4 on", () => {
    for (const size of [0, 2, 3, 12, -8, 4.5, NaN]) expect(() => Fft.kept(size)).toThrow(RangeError);
  });
});
