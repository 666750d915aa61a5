import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { fmTone, sumOf, whiteNoise } from "@/testing/fm-tone";
import { flutterOf } from "./flutter";
import { speedOf } from "./speed";
import { TransportMeter } from "./transport-meter";
import { sampled } from "@/core/dsp/sampled";

const RATE = 200;
const TRIALS = 200;

/** Deviations whose mean over all time is nought, as a demodulator would give them. */
const MACHINES: Record<string, (random: SeededRandom) => (t: number, step: number) => number> = {
  "slow wow alone": (random) => {
    const [rate, peak, phase] = [
      0.1 + 0.5 * random.uniform(),
      0.02 + 0.2 * random.uniform(),
      7 * random.uniform(),
    ];
    return (t) => peak * Math.sin(2 * Math.PI * rate * t + phase);
  },
  "slow wow and three lines": (random) => {
    const lines = Array.from({ length: 4 }, (_, k) => ({
      rate: k === 0 ? 0.1 + 0.5 * random.uniform() : 0.5 * 16 ** random.uniform(),
      peak: 0.02 + 0.1 * random.uniform(),
      phase: 7 * random.uniform(),
    }));
    return (t) =>
      lines.reduce((sum, { rate, peak, phase }) => sum + peak * Math.sin(2 * Math.PI * rate * t + phase), 0);
  },
  "random wander below 0.3 Hz": (random) => {
    let v = 0;
    const corner = 2 * Math.PI * 0.3;
    return (_, step) => (v += -v * corner * step + 0.05 * Math.sqrt(2 * corner * step) * random.normal());
  },
};

describe("the ± of speed holds the machine's own mean speed", () => {
  it.each(Object.keys(MACHINES))("%s", (name) => {
    const random = new SeededRandom(41);
    let held = 0;
    const [errors, told]: [number[], number[]] = [[], []];
    for (let trial = 0; trial < TRIALS; trial++) {
      const deviationAt = MACHINES[name](random);
      const noise = 0.0015 + 0.06 * random.uniform();
      const seconds = 3 + 17 * random.uniform();
      const deviation = sampled(
        Math.round(seconds * RATE),
        (i) => (deviationAt(i / RATE, 1 / RATE) + noise * random.normal()) / 100,
      );
      const { errorPercent, uncertaintyPercent } = speedOf({ deviation, rateHz: RATE });
      if (Math.abs(errorPercent) <= uncertaintyPercent) held++;
      errors.push(Math.abs(errorPercent));
      told.push(uncertaintyPercent);
    }
    expect(held / TRIALS).toBeGreaterThan(0.92);
    const at = (list: number[], share: number) => list.toSorted((a, b) => a - b)[Math.floor(share * TRIALS)];
    // not bought with a ± so wide that it says nothing
    expect(at(told, 0.5)).toBeLessThan(2 * at(errors, 0.95));
  });

  it("a steady tone is known as well as ever", () => {
    const deviation = Float64Array.from(whiteNoise(6 * RATE, 1e-5), (v) => 0.003 + v);
    const { errorPercent, uncertaintyPercent, creepPercent } = speedOf({ deviation, rateHz: RATE });
    expect(Math.abs(errorPercent - 0.3)).toBeLessThan(uncertaintyPercent);
    expect(uncertaintyPercent).toBeLessThan(0.001);
    expect(creepPercent).toBe(0);
  });

  it.each([
    [1.7, 3],
    [5, 4],
    [5, 12],
  ])("a speed that settles with %f s, heard %f s after the start, is said to creep", (tau, after) => {
    const deviation = sampled(6 * RATE, (i) => 0.003 - 0.005 * Math.exp(-(after + i / RATE) / tau));
    const { errorPercent, uncertaintyPercent, creepPercent } = speedOf({ deviation, rateHz: RATE });
    expect(Math.abs(errorPercent - 0.3)).toBeLessThan(uncertaintyPercent);
    expect(creepPercent).toBeGreaterThan(0.02);
  });
});

/** What the lines of a machine make of its speed, 400 values a second. */
const machineOf = (lines: Array<{ rateHz: number; peak: number; phase: number }>, seconds: number) =>
  sampled(seconds * 2 * RATE, (i) =>
    lines.reduce(
      (sum, { rateHz, peak, phase }) => sum + peak * Math.sin((Math.PI * rateHz * i) / RATE + phase),
      0,
    ),
  );

const SOUND_RATE = 48000;
const heard = (sound: Float64Array) => {
  const meter = new TransportMeter(SOUND_RATE, 1, 3150);
  meter.push([sound]);
  return { speed: meter.speed(0), flutter: meter.flutter(0) };
};
/** ±0.2 % at 4 Hz. */
const wavering = (seconds = 12) => fmTone(seconds, SOUND_RATE, 3150 * 1.003, [{ rateHz: 4, peak: 0.002 }]);

describe("the ± of flutter knows what the figure rests on", () => {
  const bell = (seconds: number, hz: number, amplitude: number) =>
    sampled(seconds * SOUND_RATE, (i) => amplitude * Math.sin((2 * Math.PI * hz * i) / SOUND_RATE));

  it("in a clean sound it is no more than the meters' own", () => {
    const { result } = heard(wavering()).flutter;
    expect(result!.uncertainty.weighted.peakPercent).toBeLessThan(0.01);
    expect(result!.doubt).toBeNull();
  });

  it.each<[string, () => Float64Array]>([
    ["noise 10 dB below the tone", () => sumOf(wavering(), whiteNoise(12 * SOUND_RATE, 0.354 * 0.316, 3))],
    ["noise as strong as the tone", () => sumOf(wavering(), whiteNoise(12 * SOUND_RATE, 0.354, 5))],
    ["another tone 20 dB down, 60 Hz beside it", () => sumOf(wavering(), bell(12, 3220, 0.05))],
    ["50 ms of zeros", () => wavering().fill(0, 6 * SOUND_RATE, 6.05 * SOUND_RATE)],
    [
      "ten lost blocks",
      () => {
        const sound = wavering();
        for (let k = 1; k <= 10; k++) sound.copyWithin(k * SOUND_RATE, k * SOUND_RATE + 480 + 37 * k);
        return sound;
      },
    ],
  ])("%s: the truth lies within it, or nothing is said", (_, sound) => {
    const { result } = heard(sound()).flutter;
    if (result === null) return;
    const { weighted, uncertainty, doubt } = result;
    for (const [meter, truth] of [
      ["peakPercent", 0.2],
      ["rmsPercent", 0.2 / Math.SQRT2],
      ["twoSigmaPercent", 0.1994],
    ] as const) {
      const off = Math.abs(weighted[meter] - truth);
      expect(doubt !== null || off <= uncertainty.weighted[meter] + 0.03 * truth).toBe(true);
    }
  });

  it("many lost places are a doubt: the figure is not kept", () => {
    const sound = wavering();
    for (let k = 1; k <= 8; k++) sound.fill(0, k * SOUND_RATE, k * SOUND_RATE + 480);
    expect(heard(sound).flutter.result!.doubt).toMatch(/lost in 8 places/);
  });

  it("in noise of any strength every figure holds what the machine does", () => {
    const random = new SeededRandom(11);
    const [trials, rate] = [20, 16_000];
    let held = 0;
    for (let trial = 0; trial < trials; trial++) {
      const lines = Array.from({ length: 3 }, () => ({
        rateHz: 0.5 * 40 ** random.uniform(),
        peak: 0.0002 + 0.0015 * random.uniform(),
        phase: 7 * random.uniform(),
      }));
      const noise = whiteNoise(12 * rate, 0.354 * 10 ** (-(15 + 25 * random.uniform()) / 20), trial + 1);
      const meter = new TransportMeter(rate, 1, 3150);
      meter.push([sumOf(fmTone(12, rate, 3150, lines), noise)]);
      const heard = meter.flutter(0).result!;
      const truth = flutterOf({ deviation: machineOf(lines, 60), rateHz: 2 * RATE });
      const off = (path: "weighted" | "unweighted") =>
        Math.abs(heard[path].rmsPercent - truth[path].rmsPercent) <=
        Math.hypot(0.02 * heard[path].rmsPercent, heard.uncertainty[path].rmsPercent);
      if (off("weighted") && off("unweighted")) held++;
    }
    expect(held / trials).toBeGreaterThan(0.9);
  });

  it("random flutter: the figure of a long run is held", () => {
    const random = new SeededRandom(7);
    const trials = 50;
    let held = 0;
    for (let trial = 0; trial < trials; trial++) {
      const lines = Array.from({ length: 3 }, () => ({
        rateHz: 0.5 * 40 ** random.uniform(),
        peak: 0.0002 + 0.001 * random.uniform(),
        phase: 7 * random.uniform(),
      }));
      const short = flutterOf({ deviation: machineOf(lines, 10), rateHz: 2 * RATE });
      const long = flutterOf({ deviation: machineOf(lines, 40), rateHz: 2 * RATE });
      const off = Math.abs(short.weighted.rmsPercent - long.weighted.rmsPercent);
      if (off <= Math.hypot(0.02 * short.weighted.rmsPercent, short.uncertainty.weighted.rmsPercent)) held++;
    }
    expect(held / trials).toBeGreaterThan(0.92);
  });
});

describe("buzz beside the tone", () => {
  it.each([0.9, 1.2, 2])(
    "harmonics of hum at %f times its strength are told, and the ± is as wide",
    (strength) => {
      const buzz = sampled(12 * SOUND_RATE, (i) =>
        [59, 60, 61, 62, 64].reduce(
          (sum, k) => sum + (0.5 * strength * Math.sin((2 * Math.PI * 50 * k * i) / SOUND_RATE + k)) / 1.5,
          0,
        ),
      );
      const { result, warnings } = heard(sumOf(wavering(), buzz)).speed;
      expect(warnings.length).toBeGreaterThan(0);
      if (result) expect(Math.abs(result.errorPercent - 0.3)).toBeLessThan(result.uncertaintyPercent);
    },
  );
});
