import { expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { LevelSpread } from "./level-spread";

const RATE = 8000;
const spreadOf = (of: (i: number) => number, seconds: number) => {
  const spread = new LevelSpread(RATE);
  const x = Float64Array.from({ length: seconds * RATE }, (_, i) => of(i));
  for (let at = 0; at < x.length; at += 700) spread.push(x.subarray(at, at + 700));
  return spread.uncertaintyDb;
};

it("a steady sine is known to a hundredth, silence not at all", () => {
  expect(spreadOf((i) => Math.sin((2 * Math.PI * 1000 * i) / RATE), 5)).toBeLessThan(0.01);
  expect(spreadOf(() => 0, 5)).toBeNull();
  expect(spreadOf(() => 1, 0.1)).toBeNull();
});

it("the ± of noise holds its level, and shrinks with the root of the time", () => {
  const offs = Array.from({ length: 40 }, (_, seed) => {
    const random = new SeededRandom(seed + 1);
    let power = 0;
    const pm = spreadOf(() => {
      const v = random.normal();
      power += v * v;
      return v;
    }, 3)!;
    return Math.abs(10 * Math.log10(power / (3 * RATE))) <= pm;
  });
  expect(offs.filter(Boolean).length).toBeGreaterThanOrEqual(36);
});
