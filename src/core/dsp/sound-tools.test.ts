import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fmTone, whiteNoise } from "@/testing/fm-tone";
import { digitalSection, gainAt, SectionFilter, shelf } from "./filter-section";
import { noisePeriod } from "./periodic-noise";
import { SeededRandom } from "./seeded-random";
import { interpolate, interpolateIn, INTERPOLATOR_REACH } from "./sinc-interpolator";
import { StereoSpectrum } from "./stereo-spectrum";
import { TruePeak } from "./true-peak";
import { sampled } from "@/core/dsp/sampled";
import { largestDifference } from "@/testing/largest-difference";

const RATE = 48000;
const db = (ratio: number) => 20 * Math.log10(ratio);

describe("interpolation between samples", () => {
  const sine = (hz: number) => (i: number) => Math.sin((2 * Math.PI * hz * i) / RATE);

  it.each([20, 1000, 8000, 16000])("a tone of %i Hz comes through at any place between", (hz) => {
    const read = sine(hz);
    let worst = 0;
    for (let i = 0; i < 500; i++) {
      const at = 100 + i * 1.0373;
      worst = Math.max(worst, Math.abs(interpolate(read, at) - read(at)));
    }
    expect(db(worst)).toBeLessThan(-58); // amplitude within 0.01 dB
  });

  it("what is not the tone stays 100 dB below it", () => {
    // read a little fast, the tone has moved by that much and nothing else has come up
    const read = sine(10000);
    const x = sampled(4096, (i) => interpolate(read, 100 + i * 1.0037));
    const spectrum = new StereoSpectrum(4096);
    spectrum.transform(x, null, 0);
    const peak = Math.round((10037 / RATE) * 4096);
    let [line, rest] = [0, 0];
    spectrum.leftPower.forEach((power, k) => (Math.abs(k - peak) <= 40 ? (line += power) : (rest += power)));
    expect(10 * Math.log10(rest / line)).toBeLessThan(-95);
  });

  it("at a sample it is that sample, nearly; in an array it is the same as through a function", () => {
    const noise = whiteNoise(400, 0.1);
    fc.assert(
      fc.property(fc.double({ min: INTERPOLATOR_REACH, max: 380, noNaN: true }), (at) => {
        expect(interpolateIn(noise, at)).toBeCloseTo(
          interpolate((i) => noise[i], at),
          12,
        );
      }),
    );
  });
});

describe("filters over a stream", () => {
  it("give the same in blocks as in one piece", () => {
    const sections = [
      shelf(50, 500, RATE),
      digitalSection({ numerator: [0, 1, 0], denominator: [0, 1, 300] }, RATE),
    ];
    const x = whiteNoise(5000, 0.1);
    const whole = x.slice();
    for (const section of sections) new SectionFilter(section).push(whole);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 900 }), { minLength: 8, maxLength: 20 }), (sizes) => {
        const filters = sections.map((section) => new SectionFilter(section));
        let at = 0;
        for (const size of sizes) {
          const block = x.slice(at, at + size);
          for (const filter of filters) filter.push(block);
          expect(largestDifference(block, whole, at)).toBeLessThan(5e-13);
          at += size;
        }
      }),
      { numRuns: 20 },
    );
  });

  it("a first-order high-pass is 3 dB down at its corner", () => {
    const corner = 2 * Math.PI * 50;
    const section = digitalSection({ numerator: [0, 1, 0], denominator: [0, 1, corner] }, RATE);
    expect(db(gainAt([section], 50, RATE))).toBeCloseTo(-3.01, 2);
  });
});

describe("spectra of two channels in one transform", () => {
  it("are those of each channel alone", () => {
    const [a, b] = [whiteNoise(1024, 0.1, 3), whiteNoise(1024, 0.1, 4)];
    const [both, onlyA, onlyB] = [
      new StereoSpectrum(1024),
      new StereoSpectrum(1024),
      new StereoSpectrum(1024),
    ];
    both.transform(a, b, 0);
    onlyA.transform(a, null, 0);
    onlyB.transform(b, null, 0);
    expect(largestDifference(both.left, onlyA.left)).toBeLessThan(5e-13);
    expect(largestDifference(both.right, onlyB.left)).toBeLessThan(5e-13);
    expect(onlyA.rightPower.every((power) => power < 1e-30)).toBe(true);
  });

  it("hold the squared amplitude of a sine in its main lobe, and its phase at the middle", () => {
    const phase = 0.7;
    const hz = 100.3 * (RATE / 4096);
    const x = sampled(4096, (i) => 0.3 * Math.cos((2 * Math.PI * hz * (i - 2048)) / RATE + phase));
    const spectrum = new StereoSpectrum(4096);
    spectrum.transform(x, null, 0);
    const lobe = spectrum.leftPower.slice(96, 106).reduce((sum, power) => sum + power, 0);
    expect(Math.sqrt(lobe)).toBeCloseTo(0.3, 4);
    for (const k of [99, 100, 101])
      expect(Math.atan2(spectrum.left[2 * k + 1], spectrum.left[2 * k])).toBeCloseTo(phase, 3);
  });
});

describe("noise made of lines", () => {
  it("is the same each time, has no DC, and RMS 1", () => {
    const period = noisePeriod("white", RATE);
    expect(period).toHaveLength(5 * RATE);
    const mean = period.reduce((sum, v) => sum + v, 0) / period.length;
    const power = period.reduce((sum, v) => sum + v * v, 0) / period.length;
    expect(mean).toBeCloseTo(0, 9);
    expect(power).toBeCloseTo(1, 9);
    expect(noisePeriod("white", RATE)).toBe(period);
  });

  it("every line stands where it should, as strong as the next: white at 1000.2 and 7777.0 Hz", () => {
    const period = noisePeriod("white", RATE);
    const line = (hz: number) => {
      let [re, im] = [0, 0];
      period.forEach((v, i) => {
        re += v * Math.cos((2 * Math.PI * hz * i) / RATE);
        im += v * Math.sin((2 * Math.PI * hz * i) / RATE);
      });
      return Math.hypot(re, im);
    };
    expect(line(7777) / line(1000.2)).toBeCloseTo(1, 9);
    expect(line(5) / line(1000.2)).toBeLessThan(1e-9);
  });

  it("sounds Gaussian: a crest of about four times its RMS", () => {
    const crest = noisePeriod("pink", RATE).reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    expect(crest).toBeGreaterThan(3.5);
    expect(crest).toBeLessThan(6);
  });
});

describe("random numbers", () => {
  it("repeat for a seed, and have the mean and spread they should", () => {
    const draw = (seed: number) => {
      const random = new SeededRandom(seed);
      return Array.from({ length: 20_000 }, () => random.normal());
    };
    const values = draw(5);
    expect(draw(5)).toEqual(values);
    expect(draw(6)[0]).not.toBe(values[0]);
    const mean = values.reduce((sum, v) => sum + v, 0) / values.length;
    expect(Math.abs(mean)).toBeLessThan(0.03);
    expect(Math.hypot(...values) / Math.sqrt(values.length)).toBeCloseTo(1, 1);
  });
});

it("true peak is the same whatever the size of the blocks", () => {
  const x = fmTone(0.2, RATE, 11_997, [], 0.7).map((v, i) => v * Math.min(1, i / 2000));
  const peak = (size: number) => {
    const meter = new TruePeak();
    for (let at = 0; at < x.length; at += size) meter.push(x.subarray(at, at + size));
    return meter.peak;
  };
  expect(peak(7)).toBeCloseTo(peak(9600), 12);
  expect(db(peak(100) / 0.7)).toBeCloseTo(0, 1);
});
