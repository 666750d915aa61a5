import { describe, expect, it } from "vitest";
import { gainAt } from "@/core/dsp/filter-section";
import { FLUTTER_WEIGHTING_DB, flutterWeighting } from "@/core/standards/flutter-weighting";
import { fmTone, pulsedTone, type Modulation } from "@/testing/fm-tone";
import { QuasiPeakMeter } from "./quasi-peak";
import { TransportMeter } from "./transport-meter";
import { sampled } from "@/core/dsp/sampled";

function flutterOfTone(tone: Float64Array, sampleRateHz = 48000, nominalHz = 3150) {
  const meter = new TransportMeter(sampleRateHz, 1, nominalHz);
  meter.push([tone]);
  return meter.flutter(0).result!;
}
const flutterOfRates = (modulations: Modulation[], seconds = 20) =>
  flutterOfTone(fmTone(seconds, 48000, 3150 * 1.003, modulations));

const weightingDb = (rateHz: number) => {
  const found = FLUTTER_WEIGHTING_DB.find(([rate]) => rate === rateHz);
  if (!found) throw new Error(`no table entry at ${rateHz} Hz`);
  return found[1];
};

describe("weighting filter", () => {
  it.each([1600, 2000, 3000])(
    "follows the table within 0.35 dB, exactly at 4 Hz, at a rate of %i Hz",
    (rate) => {
      const sections = flutterWeighting(rate);
      for (const [hz, db] of FLUTTER_WEIGHTING_DB)
        expect(Math.abs(20 * Math.log10(gainAt(sections, hz, rate)) - db), `${hz} Hz`).toBeLessThan(0.35);
      expect(gainAt(sections, 4, rate)).toBeCloseTo(1, 9);
    },
  );
});

it("a second harmonic of a low carrier, as strong as itself, changes nothing", () => {
  const carrier = fmTone(12, 48000, 440 * 1.003, [{ rateHz: 4, peak: 0.001 }]);
  const twice = fmTone(12, 48000, 880 * 1.003, [{ rateHz: 4, peak: 0.001 }]);
  const plain = flutterOfTone(carrier, 48000, 440);
  const both = flutterOfTone(
    carrier.map((v, i) => v + twice[i]),
    48000,
    440,
  );
  expect(plain.weighted.peakPercent).toBeCloseTo(0.1, 2);
  expect(both.weighted.peakPercent).toBeCloseTo(plain.weighted.peakPercent, 3);
  expect(both.uncertainty.weighted.peakPercent).toBeLessThan(0.01);
});

it("two tones of about the same level give no flutter that is kept, and say why", () => {
  const [one, other] = [3150, 3160].map((hz) => fmTone(12, 48000, hz));
  const meter = new TransportMeter(48000, 1, 3150);
  meter.push([one.map((v, i) => v + other[i])]);
  const { result, warnings } = meter.flutter(0);
  expect(result!.doubt).toMatch(/beats with this one/);
  expect(meter.speed(0).warnings.join()).toMatch(/inconclusive/);
  expect(warnings).toBeDefined();
});

describe("a sinusoidal deviation of ±1 %", () => {
  const one = flutterOfRates([{ rateHz: 4, peak: 0.01 }]);

  it("reads 1, 0.997, 0.707 and 0.707 at 4 Hz on every weighted meter", () => {
    expect(one.weighted.peakPercent).toBeCloseTo(1, 2);
    expect(one.weighted.twoSigmaPercent).toBeCloseTo(0.997, 2);
    expect(one.weighted.rmsPercent).toBeCloseTo(0.7071, 3);
    expect(one.weighted.averagePercent).toBeCloseTo(0.7071, 3);
  });

  it("is one component of that rate and size, and all wow", () => {
    expect(one.components[0].rateHz).toBeCloseTo(4, 3);
    expect(one.components[0].peakPercent).toBeCloseTo(1, 3);
    expect(one.wowRmsPercent).toBeCloseTo(0.7071, 3);
    expect(one.flutterRmsPercent).toBeLessThan(0.001);
  });
});

describe.each([0.4, 0.63, 1, 2, 6.3, 10, 20, 40, 63, 100])("a deviation at %f Hz", (rateHz) => {
  it.each([0.0001, 0.01, 0.03])("of ±%f reads within 2 % unweighted and by the table weighted", (peak) => {
    const f = flutterOfRates([{ rateHz, peak }]);
    const percent = 100 * peak;
    expect(f.unweighted.rmsPercent / (percent * Math.SQRT1_2)).toBeCloseTo(1, 1.7);
    expect(Math.abs(f.unweighted.rmsPercent / (percent * Math.SQRT1_2) - 1)).toBeLessThan(0.02);
    expect(Math.abs(f.unweighted.averagePercent / (percent * Math.SQRT1_2) - 1)).toBeLessThan(0.02);
    expect(Math.abs(f.unweighted.twoSigmaPercent / (percent * 0.997) - 1)).toBeLessThan(0.02);
    expect(Math.abs(f.unweighted.peakPercent / percent - 1)).toBeLessThan(0.03);
    const tableDb = weightingDb(rateHz);
    const db = (ratio: number) => 20 * Math.log10(ratio);
    expect(Math.abs(db(f.weighted.rmsPercent / (percent * Math.SQRT1_2)) - tableDb)).toBeLessThan(0.4);
    expect(Math.abs(db(f.weighted.peakPercent / percent) - tableDb)).toBeLessThan(1);
  });
});

it("reads a rate of 150 Hz within 2 % unweighted", () => {
  const f = flutterOfRates([{ rateHz: 150, peak: 0.001 }]);
  expect(Math.abs(f.unweighted.rmsPercent / (0.1 * Math.SQRT1_2) - 1)).toBeLessThan(0.02);
});

it("has a residual under 0.0005 % on a perfect tone, of 24 bits or not", () => {
  const tone = fmTone(10, 48000, 3150 * 0.99);
  for (const signal of [tone, tone.map((v) => Math.round(v * 8388607) / 8388607)]) {
    const f = flutterOfTone(signal);
    expect(f.unweighted.peakPercent).toBeLessThan(0.0005);
    expect(f.weighted.peakPercent).toBeLessThan(0.0005);
  }
});

it("finds the components of a mixture, strongest first", () => {
  const mixture = [
    { rateHz: 0.55, peak: 0.0008 },
    { rateHz: 6.06, peak: 0.0005, phase: 2 },
    { rateHz: 48.2, peak: 0.0003, phase: 1 },
  ];
  const f = flutterOfRates(mixture, 30);
  expect(f.components).toHaveLength(3);
  mixture.forEach(({ rateHz, peak }, i) => {
    expect(f.components[i].rateHz).toBeCloseTo(rateHz, 2);
    expect(f.components[i].peakPercent / (100 * peak)).toBeCloseTo(1, 1.9);
  });
  expect(f.unweighted.rmsPercent).toBeCloseTo(100 * Math.hypot(0.0008, 0.0005, 0.0003) * Math.SQRT1_2, 3);
});

describe("quasi-peak dynamics on one pulse a second (IEC 60386)", () => {
  const sinusoid = flutterOfRates([{ rateHz: 4, peak: 0.01 }]).unweighted.peakPercent;
  it.each([
    [10, 21, 3],
    [30, 62, 6],
    [60, 90, 6],
    [100, 100, 4],
  ])("%i ms reads %i ± %i % of the sinusoid", (milliseconds, expected, tolerance) => {
    const f = flutterOfTone(pulsedTone(20, 48000, 3150, 0.01, milliseconds / 1000));
    const share = (100 * f.unweighted.peakPercent) / sinusoid;
    expect(Math.abs(share - expected)).toBeLessThanOrEqual(tolerance);
  });

  it("scales with the deviation", () => {
    const x = sampled(8000, (i) => Math.sin(i / 40) + 0.3 * Math.sin(i / 7));
    const peakOf = (values: Float64Array) => {
      const meter = new QuasiPeakMeter(2000);
      meter.push(values);
      return meter.peak;
    };
    expect(peakOf(x.map((v) => 2 * v))).toBeCloseTo(2 * peakOf(x.slice()), 9);
  });
});

it.each([44100, 88200, 96000, 192000])("reads the same at a sample rate of %i Hz", (rate) => {
  const f = flutterOfTone(fmTone(10, rate, 3150, [{ rateHz: 4, peak: 0.002 }]), rate);
  expect(f.weighted.rmsPercent).toBeCloseTo(0.2 * Math.SQRT1_2, 3);
  expect(f.weighted.peakPercent).toBeCloseTo(0.2, 2);
});

it("warns about a stretch too short for the slow meters", () => {
  const meter = new TransportMeter(48000, 1, 3150);
  meter.push([fmTone(3, 48000, 3150)]);
  expect(meter.flutter(0).warnings.join()).toMatch(/at least 5 s/);
});

describe("scrape flutter", () => {
  it.each([
    [6300, 700],
    [10000, 1800],
    [12500, 3000],
  ])("on a carrier of %i Hz at a rate of %i Hz reads its RMS, where it is", (carrierHz, rateHz) => {
    const meter = new TransportMeter(48000, 1, carrierHz);
    meter.push([fmTone(6, 48000, carrierHz * 1.01, [{ rateHz, peak: 0.002 }])]);
    const scrape = meter.scrape(0)!;
    expect(scrape.rmsPercent / (0.2 * Math.SQRT1_2)).toBeCloseTo(1, 1);
    expect(Math.abs(scrape.strongestHz - rateHz)).toBeLessThan(15);
  });

  it("is not shown by a carrier of 3150 Hz, and is nought on a steady tone", () => {
    const low = new TransportMeter(48000, 1, 3150);
    low.push([fmTone(2, 48000, 3150)]);
    expect(low.scrape(0)).toBeNull();
    const steady = new TransportMeter(48000, 1, 10000);
    steady.push([fmTone(6, 48000, 10000, [{ rateHz: 4, peak: 0.002 }])]);
    expect(steady.scrape(0)!.rmsPercent).toBeLessThan(0.002);
  });
});
