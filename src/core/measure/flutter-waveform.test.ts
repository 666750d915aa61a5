import { describe, expect, it } from "vitest";
import { latestWaveform, strongestWaveform } from "./flutter-waveform";
import type { SteadyStretch } from "./steady-stretch";
import { sampled } from "@/core/dsp/sampled";

const RATE = 1000;
const stretch = (seconds: number, deviation: (t: number) => number): SteadyStretch => ({
  startSeconds: 2,
  rateHz: RATE,
  deviation: sampled(seconds * RATE, (i) => deviation(i / RATE)),
  amplitude: new Float64Array(seconds * RATE).fill(0.25),
  bridged: [],
  dropouts: 0,
  jumps: 0,
  unsteadySeconds: 0,
});

describe("the waveform of flutter", () => {
  it("is the last six seconds about their mean, in percent, two hundred values a second", () => {
    const { startSeconds, rateHz, percent } = latestWaveform(
      stretch(20, (t) => 0.01 + 0.002 * Math.sin(2 * Math.PI * 3 * t)),
    );
    expect([startSeconds, rateHz, percent.length]).toEqual([16, 200, 1200]);
    expect(Math.max(...percent)).toBeCloseTo(0.2, 2);
    expect(Math.min(...percent)).toBeCloseTo(-0.2, 2);
    percent.forEach((value, i) => {
      const t = 14 + (i + 0.4) / 200;
      expect(Math.abs(value - 0.2 * Math.sin(2 * Math.PI * 3 * t))).toBeLessThan(0.002);
    });
  });

  it("of a recording is where it deviates most; of a short one all there is", () => {
    const knock = strongestWaveform(stretch(40, (t) => (t > 25 && t < 25.2 ? 0.01 : 0)));
    expect(knock.startSeconds).toBeGreaterThan(2 + 19);
    expect(knock.startSeconds).toBeLessThan(2 + 25);
    expect(Math.max(...knock.percent)).toBeGreaterThan(0.9);
    expect(latestWaveform(stretch(1, () => 0)).percent).toHaveLength(200);
    expect(strongestWaveform(stretch(1, () => 0)).percent).toHaveLength(200);
  });
});
