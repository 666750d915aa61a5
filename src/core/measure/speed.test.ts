import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fmTone, sumOf, whiteNoise } from "@/testing/fm-tone";
import { TransportMeter } from "./transport-meter";
import { cents } from "./speed";
import { sampled } from "@/core/dsp/sampled";

function speedOfChannels(sampleRateHz: number, channels: Float64Array[], nominalHz = 3150) {
  const meter = new TransportMeter(sampleRateHz, channels.length, nominalHz);
  meter.push(channels);
  return channels.map((_, c) => meter.speed(c));
}

describe("speed of a reference tone", () => {
  it.each([
    [44100, 3150, -1.62],
    [48000, 3150, 0.1],
    [48000, 3000, 14.5],
    [48000, 3150, -14.5],
    [88200, 1000, 2],
    [96000, 3150, 0],
    [192000, 3150, -3],
    [44100, 10000, 0.7],
    [48000, 12500, -2],
  ])("is exact to 0.01 ppm on a clean tone: %i Hz, nominal %i Hz, %f %%", (rate, nominal, errorPercent) => {
    const tone = fmTone(4, rate, nominal * (1 + errorPercent / 100));
    const [{ result, warnings }] = speedOfChannels(rate, [tone], nominal);
    expect(warnings).toEqual([]);
    expect(Math.abs(result!.errorPercent - errorPercent)).toBeLessThan(1e-6);
    expect(result!.errorCents).toBeCloseTo(cents(errorPercent), 4);
  });

  it("stays within 1 ppm when the deck wows and flutters by a tenth of a percent", () => {
    const flutter = [
      { rateHz: 0.55, peak: 0.001 },
      { rateHz: 4, peak: 0.001 },
      { rateHz: 31, peak: 0.0005 },
    ];
    const [{ result }] = speedOfChannels(48000, [fmTone(30, 48000, 3150 * 1.01, flutter)]);
    expect(Math.abs(result!.errorPercent - 1)).toBeLessThan(1e-4);
    expect(result!.uncertaintyPercent).toBeGreaterThan(0);
  });

  it("is within twice the Cramér-Rao bound in white noise, and knows it", () => {
    const seconds = 5;
    const n = seconds * 48000;
    const noiseRms = 0.005; // 37 dB below the tone
    const eta = 0.5 ** 2 / (2 * noiseRms ** 2);
    const boundHz = (Math.sqrt(12 / (eta * n * (n * n - 1))) * 48000) / (2 * Math.PI);
    const errors = [1, 2, 3, 4, 5, 6, 7, 8].map((seed) => {
      const tone = sumOf(fmTone(seconds, 48000, 3200), whiteNoise(n, noiseRms, seed));
      const [{ result }] = speedOfChannels(48000, [tone]);
      const errorHz = result!.frequencyHz - 3200;
      expect(Math.abs(errorHz)).toBeLessThan((result!.uncertaintyPercent / 100) * 3150 * 1.5);
      return errorHz;
    });
    const rms = Math.hypot(...errors) / Math.sqrt(errors.length);
    expect(rms).toBeLessThan(2 * boundHz);
  });

  it("hears a channel 40 dB down through hum", () => {
    const weak = sumOf(fmTone(6, 48000, 3150 * 0.98, [], 0.003), fmTone(6, 48000, 50, [], 0.02));
    const results = speedOfChannels(48000, [fmTone(6, 48000, 3150 * 0.98), weak]);
    for (const { result } of results) expect(Math.abs(result!.errorPercent + 2)).toBeLessThan(1e-3);
  });

  it("gives drift in percent per minute", () => {
    const slope = 0.002 / 60; // 0.2 % a minute
    const tone = sampled(20 * 48000, (i) => {
      const t = i / 48000;
      return 0.5 * Math.sin(2 * Math.PI * 3150 * (t + (slope * t * t) / 2));
    });
    const [{ result }] = speedOfChannels(48000, [tone]);
    expect(result!.driftPercentPerMinute).toBeCloseTo(0.2, 4);
  });

  it("does not depend on how the stream is cut into blocks", () => {
    const tone = fmTone(2, 44100, 3111, [{ rateHz: 5, peak: 0.002 }]);
    const [{ result: whole }] = speedOfChannels(44100, [tone]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 9000 }), { minLength: 5, maxLength: 40 }), (sizes) => {
        const meter = new TransportMeter(44100, 1, 3150);
        for (let at = 0, k = 0; at < tone.length; k++) {
          const size = sizes[k % sizes.length];
          meter.push([tone.slice(at, at + size)]);
          at += size;
        }
        expect(meter.speed(0).result!.errorPercent).toBe(whole!.errorPercent);
      }),
      { numRuns: 8 },
    );
  });
});

describe("what is no reference tone", () => {
  const only = (channel: Float64Array, nominalHz = 3150) => speedOfChannels(48000, [channel], nominalHz)[0];

  it.each<[string, Float64Array, RegExp]>([
    ["silence", new Float64Array(96000), /silence/],
    ["noise", whiteNoise(96000, 0.1), /no steady tone/],
    ["another tone", fmTone(2, 48000, 1000), /1002 Hz|1000 Hz|999 Hz/],
    ["a tone 16 % off", fmTone(2, 48000, 3150 * 1.16), /more than ±15 %/],
    [
      "another tone with a third harmonic in the band",
      sumOf(fmTone(2, 48000, 1000), fmTone(2, 48000, 3000, [], 0.02)),
      /strongest tone/,
    ],
    ["a click of tone", fmTone(0.1, 48000, 3150), /too short|silence/],
  ])("%s gives no figure and says why", (_, channel, why) => {
    const { result, warnings } = only(channel);
    expect(result).toBeNull();
    expect(warnings.join(" ")).toMatch(why);
  });

  it("measures the tone between silences", () => {
    const channel = new Float64Array(8 * 48000);
    channel.set(fmTone(4, 48000, 3150 * 1.005), 2 * 48000);
    expect(only(channel).result!.errorPercent).toBeCloseTo(0.5, 5);
  });

  it("leaves the run-up of a deck that starts out of the figure", () => {
    const channel = sampled(8 * 48000, (i) => {
      const t = i / 48000;
      return 0.5 * Math.sin(2 * Math.PI * 3150 * (t + 0.2 * Math.exp(-t / 0.2) * 0.2));
    });
    const meter = new TransportMeter(48000, 1, 3150);
    meter.push([channel]);
    expect(Math.abs(meter.speed(0).result!.errorPercent)).toBeLessThan(0.001);
    expect(meter.flutter(0).result!.weighted.peakPercent).toBeLessThan(0.02);
  });

  it("takes broken samples as silence and says how many there were", () => {
    const channel = fmTone(3, 48000, 3150);
    channel[70000] = NaN;
    channel[70001] = Infinity;
    const { result, warnings } = only(channel);
    expect(Math.abs(result!.errorPercent)).toBeLessThan(0.001);
    expect(warnings[0]).toMatch(/2 samples are not valid numbers/);
  });

  it("measures a clipped tone and says that it is clipped", () => {
    const { result, warnings } = only(fmTone(3, 48000, 3150, [], 3).map((v) => Math.max(-1, Math.min(1, v))));
    expect(Math.abs(result!.errorPercent)).toBeLessThan(1e-4);
    expect(warnings.join()).toMatch(/clipped/);
  });

  it("refuses a sample rate that cannot hold the tone", () => {
    expect(() => new TransportMeter(8000, 1, 3150)).toThrow(/at least 8220 Hz/);
    expect(() => new TransportMeter(900, 1, 315)).toThrow(/at least 977 Hz/);
  });
});
