import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { pairTone } from "@/testing/pair-tone";
import { azimuthOf, type LadderTone } from "./azimuth";
import { FlatTops } from "./flat-tops";
import { TonePairMeter } from "./tone-pair";
import { sampled } from "@/core/dsp/sampled";

const RATE = 24_000;
const measured = (sound: [Float64Array, Float64Array], hz: number) => {
  const meter = new TonePairMeter(RATE, 2, hz);
  meter.push(sound);
  return meter.result()!;
};

describe("the ± of a phase holds the long mean while the tape weaves", () => {
  it.each([
    ["slowly, 0.05 to 0.2 Hz", 0.05, 0.2],
    ["faster, 0.2 to 1 Hz", 0.2, 1],
  ])("%s", (_, from, to) => {
    const random = new SeededRandom(3);
    const trials = 30;
    let held = 0;
    for (let trial = 0; trial < trials; trial++) {
      const [rate, start] = [from * (to / from) ** random.uniform(), 7 * random.uniform()];
      const weave = (5 + 20 * random.uniform()) / 360 / 8000;
      const seconds = 6;
      const n = seconds * RATE;
      const tone = (late: (t: number) => number) =>
        Float64Array.from(
          { length: n },
          (__, i) =>
            0.25 * Math.sin(2 * Math.PI * 8000 * (i / RATE - late(i / RATE))) + 0.0005 * random.normal(),
        );
      const pair = measured(
        [tone(() => 0), tone((t) => 1e-5 + weave * Math.sin(2 * Math.PI * rate * t + start))],
        8000,
      ).pair!;
      const truth = 360 * 8000 * 1e-5;
      if (Math.abs(pair.phaseDegrees - truth) <= pair.uncertaintyDegrees) held++;
    }
    expect(held / trials).toBeGreaterThan(0.9);
  });
});

it("the ± of a level holds its long mean while the tape flickers", () => {
  const random = new SeededRandom(8);
  const [trials, rate, seconds] = [100, 8000, 3];
  const [errors, told]: [number[], number[]] = [[], []];
  for (let trial = 0; trial < trials; trial++) {
    const [flickerDb, flickerHz, start] = [
      0.02 + 0.3 * random.uniform(),
      0.15 * 20 ** random.uniform(),
      7 * random.uniform(),
    ];
    const sound = sampled(seconds * rate, (i) => {
      const level = flickerDb * Math.sin((2 * Math.PI * flickerHz * i) / rate + start);
      return 0.25 * 10 ** (level / 20) * Math.sin((2 * Math.PI * 1000 * i) / rate) + 0.001 * random.normal();
    });
    const meter = new TonePairMeter(rate, 1, 1000);
    meter.push([sound]);
    const [{ levelDbfs, uncertaintyDb }] = meter.result()!.channels;
    errors.push(Math.abs(levelDbfs - 20 * Math.log10(0.25)));
    told.push(uncertaintyDb);
  }
  expect(errors.filter((error, i) => error <= told[i]).length).toBeGreaterThan(0.93 * trials);
  const at = (list: number[], share: number) => list.toSorted((a, b) => a - b)[Math.floor(share * trials)];
  expect(at(told, 0.5)).toBeLessThan(2 * at(errors, 0.95));
});

describe("a channel that is not there", () => {
  const rung = (frequencyHz: number, balanceDb: number): LadderTone => ({
    frequencyHz,
    phaseDegrees: 360 * frequencyHz * 1e-5,
    spreadDegrees: 1,
    coherence: 1,
    uncertaintyDegrees: 0.5,
    balanceDb,
  });
  const HEAD = { spacingMm: 0.9, speedCmPerS: 4.76 };

  it.each([20, 50, -20])("%f dB apart: nothing is resolved, and it is said which and why", (balanceDb) => {
    const view = azimuthOf([rung(1000, balanceDb), rung(3150, balanceDb), rung(10_000, balanceDb)], HEAD);
    expect(view.resolved).toBe(false);
    expect(view.doubt).toMatch(balanceDb > 0 ? /right channel is silent/ : /left channel is silent/);
  });

  it("a tone that one channel has lost does not spoil the others", () => {
    const view = azimuthOf([rung(1000, 1), rung(3150, 2), rung(8000, 4), rung(10_000, 25)], HEAD);
    expect(view.resolved).toBe(true);
    expect(view.delaySeconds).toBeCloseTo(1e-5, 7);
  });
});

describe("tops that are cut off", () => {
  const sine = (hz: number, amplitude: number, bits = 24) =>
    sampled(RATE, (i) => {
      const step = 2 ** (1 - bits);
      return Math.round((amplitude * Math.sin((2 * Math.PI * hz * i) / RATE + 0.3)) / step) * step;
    });
  const found = (samples: Float64Array, hz: number) => {
    const tops = new FlatTops(RATE / hz);
    tops.look(samples);
    return tops.found;
  };
  it.each([
    [40, 24],
    [315, 24],
    [1000, 24],
    [40, 16],
    [315, 16],
  ])("%i Hz of %i bits is whole, and clipped by 1 dB it is not, at full scale or below", (hz, bits) => {
    const whole = sine(hz, 0.5, bits);
    expect(found(whole, hz)).toBe(false);
    expect(
      found(
        whole.map((v) => Math.max(-0.445, Math.min(0.445, v))),
        hz,
      ),
    ).toBe(true);
  });

  it("a tone through the meter says so", () => {
    const [left, right] = pairTone({ frequencyHz: 315, seconds: 4, sampleRateHz: RATE, leftDbfs: 2 });
    const { channels } = measured([left.map((v) => Math.max(-1, Math.min(1, v))), right], 315);
    expect(channels.map(({ clipped }) => clipped)).toEqual([true, false]);
  });
});
