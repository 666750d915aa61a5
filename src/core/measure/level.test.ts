import { describe, expect, it } from "vitest";
import { fmTone, sumOf, whiteNoise } from "@/testing/fm-tone";
import { HumMeter } from "./hum";
import { LevelMeter } from "./level-meter";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48000;
const levelOf = (x: Float64Array) => {
  const meter = new LevelMeter();
  for (let at = 0; at < x.length; at += 1000) meter.push(x.subarray(at, at + 1000));
  return meter.level;
};

describe("level", () => {
  it("a full-scale sine: peak 0, RMS −3.01, no DC", () => {
    const level = levelOf(fmTone(1, RATE, 997, [], 1));
    expect(level.peakDbfs).toBeCloseTo(0, 3);
    expect(level.rmsDbfs).toBeCloseTo(-3.0103, 4);
    expect(level.dcPercent).toBeCloseTo(0, 3);
    expect(level.clippedSamples).toBe(0);
  });

  it("true peak finds the crest that falls between the samples", () => {
    // a quarter of the rate, 45° off: every sample is 3.01 dB below the crest
    const x = sampled(RATE, (i) => 0.5 * Math.sin((Math.PI / 2) * i + Math.PI / 4));
    const swelling = x.map((v, i) => v * Math.min(1, i / 4800)); // a sudden start overshoots by itself
    const level = levelOf(swelling);
    expect(level.peakDbfs).toBeCloseTo(-9.03, 2);
    expect(level.truePeakDbfs).toBeCloseTo(-6.02, 1);
  });

  it("DC as a percentage of full scale", () => {
    expect(levelOf(fmTone(1, RATE, 1000, [], 0.1).map((v) => v + 0.02)).dcPercent).toBeCloseTo(2, 3);
  });

  it("every sample that a converter cut off, and none of a tone that just fits", () => {
    const clipped = fmTone(1, RATE, 1000, [], 1.2).map((v) => Math.max(-1, Math.min(1, v)));
    expect(levelOf(clipped).clippedSamples).toBe(clipped.filter((v) => Math.abs(v) === 1).length);
    expect(levelOf(fmTone(1, RATE, 3150, [], 1)).clippedSamples).toBe(0);
  });
});

describe("mains hum", () => {
  const humOf = (x: Float64Array, rate = RATE) => {
    const meter = new HumMeter(rate);
    for (let at = 0; at < x.length; at += 4096) meter.push(x.subarray(at, at + 4096));
    return meter.hum;
  };
  const noise = whiteNoise(10 * RATE, 1e-4);

  it.each([50, 60] as const)("%i Hz with its odd harmonics, each at its own level", (mains) => {
    const x = sumOf(
      sumOf(fmTone(10, RATE, mains * 1.001, [], 0.01), fmTone(10, RATE, 3 * mains * 1.001, [], 0.003)),
      sumOf(fmTone(10, RATE, 3150, [], 0.25), noise),
    );
    const { mainsHz, lines } = humOf(x);
    expect(mainsHz).toBe(mains);
    expect(lines.map(({ frequencyHz }) => Math.round(frequencyHz / mains))).toEqual([1, 3]);
    expect(lines[0].levelDb).toBeCloseTo(-40, 1);
    expect(lines[1].levelDb).toBeCloseTo(-50.46, 1);
    expect(lines[0].frequencyHz).toBeCloseTo(mains * 1.001, 1);
  });

  it("none in clean noise, and none where only a test tone of 400 Hz plays", () => {
    expect(humOf(noise)).toEqual({ mainsHz: null, lines: [] });
    expect(humOf(sumOf(fmTone(10, RATE, 400, [], 0.25), noise)).mainsHz).toBeNull();
  });

  it("in a second of sound too", () => {
    const { mainsHz, lines } = humOf(fmTone(1, 44100, 50, [], 0.1), 44100);
    expect(mainsHz).toBe(50);
    expect(lines[0].levelDb).toBeCloseTo(-20, 0);
  });
});
