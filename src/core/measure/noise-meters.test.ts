import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import {
  aWeighting,
  itu468Weighting,
  REPEATED_BURSTS,
  SINGLE_BURSTS,
} from "@/core/standards/noise-weighting";
import { residueOf } from "./residue";
import { QuasiPeak468, weightedNoise } from "./weighted-noise";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48_000;
const db = (gain: number) => 20 * Math.log10(gain);
const tone = (hz: number, amplitude: number, seconds: number) =>
  sampled(seconds * RATE, (i) => amplitude * Math.sin((2 * Math.PI * hz * i) / RATE));
const hiss = (rms: number, seconds: number, seed = 1) => {
  const random = new SeededRandom(seed);
  return sampled(seconds * RATE, () => rms * random.normal());
};
const sum = (a: Float64Array, b: Float64Array) => a.map((v, i) => v + b[i]);

describe("the weightings against the tables of their standards", () => {
  // IEC 61672-1, table 3
  it.each([
    [31.5, -39.4],
    [63, -26.2],
    [250, -8.6],
    [1000, 0],
    [2500, 1.3],
    [8000, -1.1],
    [16_000, -6.6],
  ])("A at %f Hz", (hz, expected) =>
    // the table is rounded, and of the exact thirds of an octave
    expect(Math.abs(db(aWeighting(hz)) - expected)).toBeLessThan(0.15),
  );

  // BS.468-4, table 1
  it.each([
    [31.5, -29.9],
    [100, -19.8],
    [400, -7.8],
    [1000, 0],
    [3150, 9],
    [6300, 12.2],
    [10_000, 8.1],
    [16_000, -11.7],
    [20_000, -22.2],
  ])("468 at %f Hz", (hz, expected) =>
    expect(Math.abs(db(itu468Weighting(hz)) - expected)).toBeLessThan(0.15),
  );

  it.each([
    [100, -19.1, -19.8],
    [1000, 0, 0],
    [6300, -0.1, 12.2],
    [12_500, -4.3, 0],
  ])("a tone of %f Hz is weighted so much by the meter itself", (hz, a, itu468) => {
    const [read] = weightedNoise([tone(hz, 0.1, 3)], RATE)!;
    expect(read.flatDbfs).toBeCloseTo(-20, 1);
    expect(Math.abs(read.aDbfs + 20 - a)).toBeLessThan(0.15);
    expect(Math.abs(read.itu468Dbfs + 20 - itu468)).toBeLessThan(0.25);
  });

  it("white noise reads its power between 20 Hz and 20 kHz, in each channel", () => {
    const [left, right] = weightedNoise([hiss(0.01, 5), hiss(0.001, 5, 2)], RATE)!;
    const share = 10 * Math.log10(2 * (19_980 / 24_000));
    expect(Math.abs(left.flatDbfs - (-40 + share))).toBeLessThan(0.1);
    expect(Math.abs(right.flatDbfs - (-60 + share))).toBeLessThan(0.1);
    // of noise the quasi-peak reads more than its RMS
    expect(left.itu468Dbfs - left.aDbfs).toBeGreaterThan(8);
  });

  it("too short to be measured is null", () => expect(weightedNoise([hiss(0.1, 0.2)], RATE)).toBeNull());
});

describe("the quasi-peak detector against the bursts of BS.468-4", () => {
  const meter = new QuasiPeak468(RATE);
  const burst = (i: number) => Math.sin((2 * Math.PI * 5000 * i) / RATE);
  const read = (sound: (i: number) => number, seconds: number) =>
    meter.detect([sampled(seconds * RATE, (i) => sound(i))], 0);
  const steady = read(burst, 3);

  it.each(SINGLE_BURSTS)("one of %f ms", (ms, least, nominal, most) => {
    const percent = (100 * read((i) => (i < (ms * RATE) / 1000 ? burst(i) : 0), 0.6)) / steady;
    expect(percent).toBeGreaterThan(least);
    expect(percent).toBeLessThan(most);
    expect(Math.abs(db(percent / nominal))).toBeLessThan(0.2);
  });

  it.each(REPEATED_BURSTS)("%f a second", (perSecond, least, nominal, most) => {
    const period = RATE / perSecond;
    const percent = (100 * read((i) => (i % period < 0.005 * RATE ? burst(i % period) : 0), 3)) / steady;
    expect(percent).toBeGreaterThan(least);
    expect(percent).toBeLessThan(most);
    expect(Math.abs(db(percent / nominal))).toBeLessThan(0.2);
  });
});

describe("what is left of a tone that was erased", () => {
  /** The tone wavers as on tape. */
  const wavering = (amplitude: number, seconds: number) =>
    sampled(seconds * RATE, (i) => {
      const t = i / RATE;
      return (
        amplitude *
        Math.sin(2 * Math.PI * 1000 * (t + (0.002 / (2 * Math.PI * 4)) * Math.sin(2 * Math.PI * 4 * t)))
      );
    });

  it.each([-45, -60, -75])("%f dB, under noise ten above it", (levelDb) => {
    const amplitude = 10 ** (levelDb / 20);
    const noise = hiss((amplitude * Math.SQRT1_2 * 10 ** 0.5 * 24) / 20, 10, -levelDb);
    const found = residueOf(sum(wavering(amplitude, 10), noise), RATE, 1000)!;
    expect(found.measurable).toBe(true);
    expect(Math.abs(found.levelDbfs - levelDb)).toBeLessThan(0.5);
    expect(Math.abs(found.levelDbfs - levelDb)).toBeLessThan(Math.max(0.1, 1.5 * found.uncertaintyDb));
  });

  it("hidden in noise it is at most what noise leaves room for, and said to be hidden", () => {
    const found = residueOf(sum(wavering(1e-6, 10), hiss(0.001, 10)), RATE, 1000)!;
    expect(found.measurable).toBe(false);
    expect(found.levelDbfs).toBeGreaterThan(-120);
    expect(found.levelDbfs).toBeLessThan(-75);
  });

  it("a low tone is held against the noise around it as well", () => {
    expect(residueOf(hiss(0.001, 10), RATE, 80)!.measurable).toBe(false);
    const found = residueOf(sum(tone(80, 0.001, 10), hiss(0.001, 10)), RATE, 80)!;
    expect(found.measurable).toBe(true);
    expect(Math.abs(found.levelDbfs + 60)).toBeLessThan(0.5);
    expect(residueOf(hiss(0.001, 10), RATE, 10)).toBeNull();
  });

  it("hum and another tone beside it are no residue", () => {
    const beside = sum(tone(100, 0.01, 10), tone(1200, 0.01, 10));
    const found = residueOf(sum(beside, hiss(1e-4, 10)), RATE, 1000)!;
    expect(found.measurable).toBe(false);
    expect(found.levelDbfs).toBeLessThan(-90);
  });
});
