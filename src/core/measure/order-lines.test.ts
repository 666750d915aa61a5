import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { distortionOf } from "./distortion";
import { orderLines } from "./order-lines";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48000;

interface Tone {
  seconds?: number;
  hz?: number;
  /** Level of harmonics re the fundamental, dB, by order. */
  harmonics?: Record<number, number>;
  flutter?: number;
  noise?: number;
}

/** A tone of −12 dBFS that wavers at 4 and 37 Hz, its harmonics locked to it. */
function tone({ seconds = 4, hz = 315, harmonics = {}, flutter = 0, noise = 0 }: Tone): Float64Array {
  const random = new SeededRandom(9);
  let turns = 0;
  return sampled(seconds * RATE, (i) => {
    const t = i / RATE;
    turns += (hz / RATE) * (1 + flutter * (Math.sin(8 * Math.PI * t) + 0.3 * Math.sin(74 * Math.PI * t)));
    let value = Math.sin(2 * Math.PI * turns);
    for (const [order, db] of Object.entries(harmonics))
      value += 10 ** (db / 20) * Math.sin(2 * Math.PI * Number(order) * turns + Number(order));
    return 10 ** (-12 / 20) * value + noise * random.normal();
  });
}
const lineOf = (x: Float64Array, order: number, hz = 315) =>
  orderLines(x, RATE, hz, [order])!.lines.find((line) => line.order === order)!;

describe("harmonics by order tracking", () => {
  it.each([
    [-30, 0.003, 3e-4],
    [-40, 0.003, 3e-4],
    [-44.4, 0, 1e-4],
    [-60, 0.003, 1e-4],
    [-74, 0.003, 3e-5],
    [-80, 0.003, 3e-5],
  ])(
    "a third harmonic of %f dB, flutter ±%f, noise %f: within its own ±, and 0.3 dB",
    (db, flutter, noise) => {
      const third = lineOf(tone({ harmonics: { 3: db }, flutter, noise }), 3);
      expect(third.measurable).toBe(true);
      expect(Math.abs(third.levelDb - db)).toBeLessThan(Math.min(0.3, 1.5 * third.uncertaintyDb));
    },
  );

  it("every order by itself, at 1 kHz and a tenth off the expected frequency", () => {
    const harmonics = { 2: -50, 3: -40, 4: -70, 5: -60, 6: -75, 7: -66 };
    const found = orderLines(tone({ hz: 1000, harmonics, flutter: 0.003 }), RATE, 1080, [2, 3, 4, 5, 6, 7])!;
    for (const { order, levelDb } of found.lines) expect(levelDb).toBeCloseTo(harmonics[order as 2], 2);
    expect(found.frequencyHz).toBeCloseTo(1000, 1);
    expect(found.levelDbfs).toBeCloseTo(-12, 2);
  });

  it("a perfect tone has none, steady or wavering: under −120 dB", () => {
    for (const flutter of [0, 0.003]) {
      const { thdPercent } = distortionOf(tone({ hz: 1000, flutter, seconds: 6 }), RATE, 1000)!;
      expect(20 * Math.log10(thdPercent / 100)).toBeLessThan(-120);
    }
  });

  it("what noise hides is not measurable, with the floor that hides it", () => {
    const hidden = lineOf(tone({ harmonics: { 3: -80 }, flutter: 0.002, noise: 3e-3 }), 3);
    expect(hidden.measurable).toBe(false);
    // white noise of 3e-3 RMS in 0.7 Hz is 38 dB lower per line of 4 s
    expect(hidden.floorDb).toBeGreaterThan(-80);
    expect(hidden.floorDb).toBeLessThan(-60);
    expect(hidden.levelDb).toBeLessThan(hidden.floorDb + 6);
  });

  it("a line that noise hides is below its bound, also where noise has cancelled it", () => {
    let [hidden, exceeded] = [0, 0];
    for (let seed = 1; seed <= 150; seed++) {
      const random = new SeededRandom(seed);
      const db = -70 - 15 * random.uniform();
      const x = tone({ seconds: 1, hz: 1000, harmonics: { 3: db } }).map((v) => v + 3e-3 * random.normal());
      const line = lineOf(x, 3, 1000);
      if (line.measurable) continue;
      hidden++;
      if (db > line.levelDb) exceeded++;
    }
    expect(hidden).toBeGreaterThan(60);
    expect(exceeded / hidden).toBeLessThan(0.03);
  });

  it.each<[string, (t: number) => number, boolean]>([
    ["a second tone 25 dB below", (t) => 0.014 * Math.sin(2 * Math.PI * 700 * t), true],
    [
      "a buzz of 120 Hz",
      (t) =>
        [1, 2, 3, 4, 5, 7].reduce((sum, k) => sum + (0.03 / k) * Math.sin(2 * Math.PI * 121.7 * k * t), 0),
      true,
    ],
    ["hum 50 dB below", (t) => 8e-4 * Math.sin(2 * Math.PI * 50 * t), false],
    ["nothing", () => 0, false],
  ])("%s beside the tone is recognised as foreign: %s", (_, other, isForeign) => {
    const x = tone({ harmonics: { 2: -45, 3: -35 }, flutter: 0.003, noise: 1e-4 });
    const heard = x.map((v, i) => v + other(i / RATE));
    expect(distortionOf(heard, RATE, 315)!.foreign !== null).toBe(isForeign);
  });

  it("tops that are cut off on one side alone are reported", () => {
    const clipped = tone({}).map((v) => Math.min(0.2, v));
    expect(distortionOf(clipped, RATE, 315)!.clipped).toBe(true);
  });

  it("noise alone is taken for a harmonic less than once in a hundred", () => {
    let taken = 0;
    for (let seed = 1; seed <= 25; seed++) {
      const random = new SeededRandom(seed);
      const x = tone({ seconds: 1, hz: 1000 }).map((v) => v + 1e-3 * random.normal());
      taken += distortionOf(x, RATE, 1000)!.harmonics.filter(({ measurable }) => measurable).length;
    }
    expect(taken).toBeLessThanOrEqual(2);
  });

  it("no tone, too short a tone, and harmonics above half the rate", () => {
    expect(orderLines(new Float64Array(RATE), RATE, 1000, [3])).toBeNull();
    expect(orderLines(tone({ seconds: 0.1 }), RATE, 315, [3])).toBeNull();
    const high = orderLines(tone({ hz: 6300, harmonics: { 3: -40 } }), RATE, 6300, [2, 3, 4, 5])!;
    expect(high.lines.map(({ order }) => order)).toEqual([2, 3]);
    expect(high.lines[1].levelDb).toBeCloseTo(-40, 2);
  });

  it("tops that are cut off are told", () => {
    const clipped = tone({}).map((v) => Math.max(-0.2, Math.min(0.2, v)));
    expect(distortionOf(clipped, RATE, 315)!.clipped).toBe(true);
    expect(distortionOf(tone({ harmonics: { 3: -30 } }), RATE, 315)!.clipped).toBe(false);
  });
});
