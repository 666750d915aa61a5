import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { steadyNoise } from "./steady-noise";

const RATE = 16_000;
const SECONDS = 12;
const noise = (seed = 1, level = 1e-3) => {
  const random = new SeededRandom(seed);
  return Float32Array.from({ length: SECONDS * RATE }, () => level * random.normal());
};
/** Noise in which something else happens between two times. */
const changed = (from: number, to: number, change: (value: number, t: number) => number) =>
  noise().map((value, i) => (i >= from * RATE && i < to * RATE ? change(value, i / RATE) : value));

describe("the stretch that a noise figure is taken from", () => {
  it("is all of steady noise, hum and single clicks included", () => {
    const x = noise().map(
      (value, i) => value + 5e-3 * Math.sin((2 * Math.PI * 50 * i) / RATE) + (i === 30_000 ? 0.02 : 0),
    );
    const { from, to, doubt, notes } = steadyNoise(x, RATE);
    expect(doubt).toBeNull();
    expect(notes).toEqual([]);
    expect(to - from).toBeGreaterThan(0.9 * x.length);
  });

  it.each<[string, Float32Array]>([
    [
      "a voice for two seconds",
      changed(3, 5, (v, t) => v + 0.05 * Math.sin(2 * Math.PI * 700 * t) * Math.sin(2 * Math.PI * 2.3 * t)),
    ],
    ["gaps of digital silence", changed(2, 3.5, () => 0)],
    ["a recording that begins with the transport's start", changed(0, 1.5, (v, t) => v * (20 - 12 * t))],
  ])("leaves out %s, and says how much", (_, x) => {
    const { from, to, usedSeconds, doubt, notes } = steadyNoise(x, RATE);
    expect(doubt).toBeNull();
    expect(notes.join()).toMatch(/left out/);
    expect(usedSeconds).toBeGreaterThan(5);
    const power = x.slice(from, to).reduce((sum, v) => sum + v * v, 0) / (to - from);
    expect(10 * Math.log10(power / 1e-6)).toBeCloseTo(0, 0);
  });

  it.each<[string, Float32Array, RegExp]>([
    ["a gate that closes after three seconds", changed(3, SECONDS, (v) => 0.01 * v), /changes by 40 dB/],
    ["a recording that ends half-way", changed(6.5, SECONDS, (v) => 0.4 * v), /changes by 8 dB/],
    [
      "a floor that opens and closes",
      noise().map((v, i) => (Math.floor(i / RATE / 0.7) % 2 ? v : 0.1 * v)),
      /gate|not steady/,
    ],
    ["nothing but digital silence", new Float32Array(SECONDS * RATE), /Digital silence/],
  ])("is none of %s", (_, x, why) => {
    const { doubt, usedSeconds } = steadyNoise(x, RATE);
    expect(doubt).toMatch(why);
    expect(usedSeconds).toBe(0);
  });
});
