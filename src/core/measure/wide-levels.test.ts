import { describe, expect, it } from "vitest";
import { noisePeriod } from "@/core/dsp/periodic-noise";
import { largestDifference } from "@/testing/largest-difference";
import { whiteNoise } from "@/testing/fm-tone";
import {
  lossDb,
  SWEEP,
  SWEEP_START_SECONDS as START,
  sweepSound,
  type SweepOptions,
} from "@/testing/sweep-sound";
import { noiseLevels } from "./noise-levels";
import { sweepLevels } from "./sweep-levels";
import { seriesBetween, type WideLevel } from "./wide-levels";
import { withoutHum } from "./without-hum";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48000;

const worstOf = (levels: WideLevel[], truth: (hz: number) => number) =>
  Math.max(...levels.map(({ frequencyHz, levelDb }) => Math.abs(levelDb - truth(frequencyHz))));

describe("level along a sweep", () => {
  const expected = (hz: number) => lossDb(hz) - 20;

  it.each<[string, SweepOptions, number]>([
    ["steady", {}, 0.03],
    ["0.3 % of flutter, slow and fast", { flutter: [[0.2, 0.6], [0.1, 30]] }, 0.06], // prettier-ignore
    ["hum 20 dB below it", { humDbfs: -40 }, 0.15],
    ["the tape 4 % slow", { speedRatio: 0.96 }, 0.05],
    ["downwards", { shape: { frequencyHz: 12_500, toFrequencyHz: 40, seconds: 20 } }, 0.05],
  ])("%s: within %s", (_, options, within) => {
    const sound = sweepSound(options);
    const { speedRatio = 1, shape = SWEEP } = options;
    const [levels] = sweepLevels([sound], RATE, shape, { startSeconds: START, speedRatio });
    expect(worstOf(levels, expected)).toBeLessThan(within);
    expect(levels.length).toBeGreaterThan(48);
    expect(Math.min(...levels.map(({ frequencyHz }) => frequencyHz))).toBeLessThan(43);
    expect(Math.max(...levels.map(({ frequencyHz }) => frequencyHz))).toBeGreaterThan(12_000);
  });

  it("finds its place by itself, where that is known only roughly", () => {
    const place = { startSeconds: START + 0.09, speedRatio: 1.006 };
    const [levels] = sweepLevels([sweepSound({})], RATE, SWEEP, place);
    expect(worstOf(levels, expected)).toBeLessThan(0.05);
  });

  it("both channels, each with its own level; a sound that ends early gives what has passed", () => {
    const sound = sweepSound({}).subarray(0, 12 * RATE);
    const quiet = sound.map((x) => x / 2);
    const [left, right] = sweepLevels([sound, quiet], RATE, SWEEP, { startSeconds: START, speedRatio: 1 });
    left.forEach(({ levelDb }, i) => expect(levelDb - right[i].levelDb).toBeCloseTo(6.0206, 2));
    expect(worstOf(left, expected)).toBeLessThan(0.05);
    expect(Math.max(...left.map(({ frequencyHz }) => frequencyHz))).toBeLessThan(1200);
  });

  it("takes hum out of what it may write over, and of nothing else, with the same levels", () => {
    const sound = sweepSound({ humDbfs: -40 });
    const given = sound.slice();
    const place = { startSeconds: START, speedRatio: 1 };
    const levels = sweepLevels([given], RATE, SWEEP, place);
    const isAsGiven = () => given.every((x, i) => x === sound[i]);
    expect(isAsGiven()).toBe(true);
    expect(sweepLevels([given], RATE, SWEEP, place, true)).toEqual(levels);
    expect(isAsGiven()).toBe(false);
  });

  it("a level that jumps about shows as spread", () => {
    const steady = sweepSound({});
    const restless = steady.map((x, i) => x * (Math.floor(i / RATE / 0.7) % 2 === 0 ? 1 : 0.8));
    const [calm, jumping] = sweepLevels([steady, restless], RATE, SWEEP, {
      startSeconds: START,
      speedRatio: 1,
    });
    const typical = (levels: WideLevel[]) =>
      levels.map(({ spreadDb }) => spreadDb).toSorted((a, b) => a - b)[25];
    expect(typical(calm)).toBeLessThan(0.05);
    expect(typical(jumping)).toBeGreaterThan(0.3);
  });
});

describe("level of pink noise by bands", () => {
  const period = noisePeriod("pink", RATE);
  const pink = (seconds: number, gain = 0.1) =>
    sampled(seconds * RATE, (i) => gain * period[i % period.length]);
  const flatness = (levels: WideLevel[]) => {
    const middle = levels.find(({ frequencyHz }) => Math.abs(frequencyHz - 1000) < 1)!.levelDb;
    return levels.map(({ levelDb, ...level }) => ({ ...level, off: levelDb - middle }));
  };

  it("is flat within what chance allows, and says how much that is", () => {
    const [levels] = noiseLevels([pink(20)], RATE);
    const off = flatness(levels);
    const inside = off.filter(({ off, uncertaintyDb }) => Math.abs(off) < uncertaintyDb + 0.1);
    expect(inside.length / off.length).toBeGreaterThan(0.9);
    const at = (hz: number) => levels.find(({ frequencyHz }) => Math.abs(frequencyHz / hz - 1) < 0.01)!;
    // 2·4.34 dB over the root of bandwidth times time
    expect(at(10_000).uncertaintyDb).toBeCloseTo((2 * 4.343) / Math.sqrt(10_000 * 0.1156 * 20), 1);
    expect(at(63.1).uncertaintyDb).toBeGreaterThan(0.4);
  });

  it("hum as strong as the noise around it is taken out", () => {
    const clean = pink(20);
    const mixed = clean.map((x, i) => x + 0.02 * Math.sin((2 * Math.PI * 50 * i) / RATE));
    const [[before], [after]] = [noiseLevels([clean], RATE), noiseLevels([mixed], RATE)];
    after.forEach(({ levelDb }, i) => expect(Math.abs(levelDb - before[i].levelDb)).toBeLessThan(0.3));
  });

  it("a channel that comes and goes has more spread than chance; a moment of noise says nothing", () => {
    const sound = pink(20);
    const restless = sound.map((x, i) => x * (Math.floor(i / RATE / 1.5) % 2 === 0 ? 1 : 0.6));
    const [calm, moving] = noiseLevels([sound, restless], RATE);
    const high = (levels: WideLevel[]) => levels.find(({ frequencyHz }) => frequencyHz > 9000)!.spreadDb;
    expect(high(calm)).toBeLessThan(0.3);
    expect(high(moving)).toBeGreaterThan(1);
    expect(noiseLevels([pink(1)], RATE)).toEqual([[]]);
  });
});

describe("hum", () => {
  it("is learned beside a tone of nearly its own frequency, and taken away under it", () => {
    const tone = (i: number) =>
      i > 4 * RATE && i < 9 * RATE ? 0.02 * Math.sin((2 * Math.PI * 251 * i) / RATE) : 0;
    const clean = sampled(13 * RATE, (i) => tone(i));
    const mixed = clean.map((x, i) => x + 0.004 * Math.cos((2 * Math.PI * 250.06 * i) / RATE + 1));
    const { samples } = withoutHum(mixed, RATE, {
      isClear: (seconds) => seconds < 3.9 || seconds > 9.1,
    });
    expect(largestDifference(samples, clean)).toBeLessThan(0.0003);
  });

  it("that is not there leaves the sound as it was", () => {
    const noise = whiteNoise(6 * RATE, 0.01, 9);
    const { samples } = withoutHum(noise, RATE);
    const rest = Math.sqrt(noise.reduce((sum, x, i) => sum + (samples[i] - x) ** 2, 0) / noise.length);
    expect(rest).toBeLessThan(2e-4);
  });
});

it("the series of frequencies has the round ones", () => {
  const series = seriesBetween(100, 1000);
  expect(series).toHaveLength(21);
  expect(series[10]).toBeCloseTo(316.2, 1);
  expect(seriesBetween(500, 400)).toEqual([]);
});
