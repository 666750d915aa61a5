import { describe, expect, it } from "vitest";
import { FastFir } from "./fast-fir";
import { SeededRandom } from "./seeded-random";
import { sampled } from "@/core/dsp/sampled";
import { largestDifference } from "@/testing/largest-difference";

const random = new SeededRandom(4);
const noise = (length: number) => sampled(length, () => random.normal());

/** What a filter is by definition. */
const convolved = (x: Float64Array, taps: Float64Array) =>
  x.map((_, n) => taps.reduce((sum, tap, j) => sum + (n >= j ? tap * x[n - j] : 0), 0));

describe("a long filter over a stream", () => {
  it.each([1, 64, 1024, 5000])("in blocks of %d is the convolution", (block) => {
    const taps = noise(255);
    const x = noise(5000);
    const filter = new FastFir(taps);
    const wanted = convolved(x, taps);
    const got = new Float64Array(x.length);
    for (let at = 0; at < (block === 1 ? 700 : x.length); at += block)
      got.set(filter.push(x.subarray(at, at + block)), at);
    const pushed = block === 1 ? 700 : x.length;
    expect(largestDifference(got.subarray(0, pushed), wanted)).toBeLessThan(5e-10);
  });

  it("takes over from another one in the middle", () => {
    const taps = noise(101);
    const x = noise(2000);
    const wanted = convolved(x, taps);
    const second = new FastFir(taps, x.subarray(0, 1000));
    const got = second.push(x.subarray(1000));
    expect(largestDifference(got, wanted, 1000)).toBeLessThan(5e-10);
  });
});
