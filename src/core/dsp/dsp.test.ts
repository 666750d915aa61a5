import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fmTone, whiteNoise } from "@/testing/fm-tone";
import { amplitudeSpectrum, rmsBetween } from "./amplitude-spectrum";
import { butterworthHighpass, gainAt, SectionFilter, shelf } from "./filter-section";
import { FirDecimator } from "./fir-decimator";
import { kaiserLowpass } from "./kaiser-lowpass";
import { meanOf } from "./mean";
import { quantileInPlace } from "./quantile";
import { leastRateFor, ToneDemodulator } from "./tone-demodulator";
import { sampled } from "@/core/dsp/sampled";
import { largestDifference } from "@/testing/largest-difference";

const db = (ratio: number) => 20 * Math.log10(ratio);

/** Gain of symmetric taps at a frequency, in dB. */
function tapsGainDb(taps: Float64Array, hz: number, rate: number): number {
  const centre = (taps.length - 1) / 2;
  return db(
    Math.abs(taps.reduce((sum, tap, i) => sum + tap * Math.cos((2 * Math.PI * hz * (i - centre)) / rate), 0)),
  );
}

describe("Kaiser low-pass", () => {
  it.each([80, 100, 120])("is flat in its pass band and %i dB down in its stop band", (attenuation) => {
    const taps = kaiserLowpass(48000, 1000, 3000, attenuation);
    expect(taps.length % 2).toBe(1);
    for (let hz = 0; hz <= 1000; hz += 50) expect(Math.abs(tapsGainDb(taps, hz, 48000))).toBeLessThan(0.002);
    for (let hz = 3000; hz < 24000; hz += 37)
      expect(tapsGainDb(taps, hz, 48000)).toBeLessThan(-attenuation + 3);
  });
  it("refuses bands that cannot be", () => {
    expect(() => kaiserLowpass(48000, 3000, 1000)).toThrow(/got pass 3000 Hz, stop 1000 Hz/);
  });
});

describe("FIR decimator", () => {
  it("gives the dot products of the definition, however the stream is cut", () => {
    const taps = kaiserLowpass(1000, 50, 150, 60);
    const x = whiteNoise(800, 1);
    const expected: number[] = [];
    for (let end = taps.length; end <= x.length; end += 3)
      expected.push(taps.reduce((sum, tap, j) => sum + tap * x[end - 1 - j], 0));
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 200 }), { minLength: 1 }), (sizes) => {
        const decimator = new FirDecimator(taps, 3);
        const got: number[] = [];
        for (let at = 0, k = 0; at < x.length; at += sizes[k++ % sizes.length])
          got.push(...decimator.push(x.subarray(at, at + sizes[k % sizes.length])).re);
        expect(got).toHaveLength(expected.length);
        expect(largestDifference(got, expected)).toBeLessThan(1e-6);
      }),
      { numRuns: 30 },
    );
  });

  it("moved up to a frequency, passes a tone there as a steady phasor and stops its image", () => {
    const rate = 48000;
    const omega = (2 * Math.PI * 6000) / rate;
    const { re, im } = new FirDecimator(kaiserLowpass(rate, 500, 2000), 8, omega).push(
      fmTone(0.2, rate, 6000, [], 1),
    );
    for (let k = 0; k < re.length; k++) expect(Math.hypot(re[k], im[k])).toBeCloseTo(0.5, 5);
  });
});

describe("filter sections", () => {
  it("a Butterworth high-pass is 3 dB down at its corner", () => {
    expect(db(gainAt([butterworthHighpass(10, 1000)], 10, 1000))).toBeCloseTo(-3.01, 2);
    expect(db(gainAt([butterworthHighpass(10, 1000)], 1, 1000))).toBeCloseTo(-40, 1);
  });
  it("a shelf goes from 1 to pole over zero", () => {
    const s = [shelf(5, 8, 2000)];
    expect(gainAt(s, 0.001, 2000)).toBeCloseTo(1, 6);
    expect(gainAt(s, 900, 2000)).toBeCloseTo(8 / 5, 2);
  });
  it("filters a sinusoid by the gain it states", () => {
    const sections = [butterworthHighpass(3, 1000), shelf(20, 40, 1000)];
    const x = sampled(8000, (i) => Math.sin((2 * Math.PI * 12.5 * i) / 1000));
    for (const section of sections) new SectionFilter(section).push(x);
    expect(Math.max(...x.subarray(4000))).toBeCloseTo(gainAt(sections, 12.5, 1000), 3);
  });
});

describe("amplitude spectrum", () => {
  it("reads a sinusoid's own amplitude and RMS, padded or averaged", () => {
    const x = sampled(6000, (i) => 0.3 * Math.sin((2 * Math.PI * 40 * i) / 1000));
    for (const s of [
      amplitudeSpectrum(x, 1000, 8192, 4000),
      amplitudeSpectrum(x, 1000, 32768, 6000),
      amplitudeSpectrum(x, 1000, 2048, 1000),
    ]) {
      expect(Math.max(...s.amplitude)).toBeCloseTo(0.3, 2);
      expect(rmsBetween(s, 20, 60)).toBeCloseTo(0.3 * Math.SQRT1_2, 3);
    }
  });
  it("keeps the power of white noise", () => {
    const s = amplitudeSpectrum(whiteNoise(200_000, 0.5), 1000, 4096, 4096);
    expect(rmsBetween(s, 0.5, 500)).toBeCloseTo(0.5, 1.5);
  });
});

it("selects the same quantile as a full sort", () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ noNaN: true }), { minLength: 1 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (values, share) => {
        const sorted = Float64Array.from(values).sort();
        const expected = sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
        expect(quantileInPlace(Float64Array.from(values), share) === expected).toBe(true); // 0 and −0 are one
      },
    ),
  );
  expect(() => quantileInPlace(new Float64Array(0), 0.5)).toThrow(/at least one/);
});

describe("tone demodulator", () => {
  it.each([
    [44100, 3150],
    [48000, 1000],
    [48000, 12500],
    [96000, 3000],
    [192000, 3150],
  ])("at %i Hz follows the amplitude and the frequency of a %i Hz tone", (rate, nominal) => {
    const demodulator = new ToneDemodulator(rate, nominal);
    const { deviation, amplitude } = demodulator.push(fmTone(0.5, rate, nominal * 1.03, [], 0.4));
    expect(deviation.length).toBeGreaterThan(300);
    expect(Math.max(...deviation.map((d) => Math.abs(d - 0.03)))).toBeLessThan(5e-7);
    expect(Math.max(...amplitude.map((a) => Math.abs(a - 0.4)))).toBeLessThan(5e-5);
  });

  it.each([200, 315, 400, 667, 1000, 3150, 10_000])(
    "follows a tone of %i Hz at the lowest sample rate that it takes, as far off as it may be",
    (nominal) => {
      const rate = Math.ceil(leastRateFor(nominal));
      expect(() => new ToneDemodulator(rate - 1, nominal)).toThrow(`at least ${rate} Hz`);
      for (const off of [-0.14, 0, 0.14]) {
        const tone = fmTone(1, rate, nominal * (1 + off), [], 0.4);
        const { deviation } = new ToneDemodulator(rate, nominal).push(tone);
        expect(Math.abs(meanOf(deviation) - off), `${off}`).toBeLessThan(1e-5);
      }
    },
  );

  it("says when its results were: a change shows where it happened", () => {
    const rate = 48000;
    const tone = sampled(rate, (i) => {
      const t = i / rate;
      return Math.sin(2 * Math.PI * 3150 * (t + 0.02 * Math.max(0, t - 0.5)));
    });
    const demodulator = new ToneDemodulator(rate, 3150);
    const { deviation } = demodulator.push(tone);
    const half = deviation.findIndex((d) => d > 0.01);
    expect(demodulator.firstResultSeconds + half / demodulator.outputRateHz).toBeCloseTo(0.5, 2.5);
  });
});
