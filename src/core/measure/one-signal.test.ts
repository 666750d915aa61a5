import { expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { TonePairMeter } from "./tone-pair";

const RATE = 48_000;
const pairOf = (right: (left: number, noise: number) => number) => {
  const random = new SeededRandom(4);
  const left = new Float32Array(2 * RATE);
  const other = new Float32Array(2 * RATE);
  for (let i = 0; i < left.length; i++) {
    left[i] = 0.2 * Math.sin((2 * Math.PI * 10_000 * i) / RATE) + 1e-4 * random.normal();
    other[i] = right(left[i], random.normal());
  }
  const meter = new TonePairMeter(RATE, 2, 10_000);
  meter.push([left, other]);
  return meter.result()!.pair!;
};

it.each<[string, (left: number, noise: number) => number, boolean]>([
  ["twice the same", (left) => left, true],
  ["the same at another level", (left) => 0.8 * left, true],
  ["the same, with the steps of 16 bits", (left) => Math.round(0.9 * left * 32768) / 32768, true],
  ["two tracks with noise of their own at −80 dB", (left, noise) => left + 1e-4 * noise, false],
])("%s: mono %s", (_, right, isMono) => {
  expect(pairOf(right).isMono).toBe(isMono);
});
