import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { countsDropOuts, DropOutMeter, together, type DropOut } from "./drop-outs";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48_000;

interface Made {
  events: DropOut[];
  seconds: number;
  hiss?: number;
  hum?: number;
  flutter?: number;
  shape?: "gate" | "cosine";
}

/** A tone of 3150 Hz with dips of a known depth. */
function made({ events, seconds, hiss = 0, hum = 0, flutter = 0.002, shape = "gate" }: Made): Float64Array {
  const random = new SeededRandom(5);
  return sampled(seconds * RATE, (i) => {
    const t = i / RATE;
    const dip = events.find(({ atSeconds, seconds: long }) => t >= atSeconds && t < atSeconds + long);
    const share = dip ? (t - dip.atSeconds) / dip.seconds : 0;
    const depth = dip ? dip.depthDb * (shape === "gate" ? 1 : 0.5 - 0.5 * Math.cos(2 * Math.PI * share)) : 0;
    const wander = (flutter / (2 * Math.PI * 3)) * Math.sin(2 * Math.PI * 3 * t);
    return (
      0.2 * 10 ** (-depth / 20) * Math.sin(2 * Math.PI * 3150 * (t + wander)) +
      hum * Math.sin(2 * Math.PI * 150 * t) +
      hiss * random.normal()
    );
  });
}
function heard(x: Float64Array, depthDb = 6) {
  const meter = new DropOutMeter(RATE, 3150, depthDb);
  for (let at = 0; at < x.length; at += 10_000) meter.push(x.subarray(at, at + 10_000));
  return meter.result();
}
const at = (seconds: number[], long: number, depthDb: number): DropOut[] =>
  seconds.map((atSeconds) => ({ atSeconds, seconds: long, depthDb }));

describe("drop-outs of a tone", () => {
  it.each<[number, number, Made["shape"]]>([
    [0.005, 7, "gate"],
    [0.005, 15, "gate"],
    [0.02, 9, "gate"],
    [0.1, 20, "gate"],
    [0.02, 12, "cosine"],
    [0.1, 8, "cosine"],
  ])("of %f s and %f dB, %s, are all found, as deep as they are", (long, depthDb, shape) => {
    const events = at([1.2, 2.5, 3.1, 4.777], long, depthDb);
    const found = heard(made({ events, seconds: 6, hiss: 0.002, hum: 0.02, shape }));
    expect(found.events).toHaveLength(4);
    found.events.forEach((event, i) => {
      expect(Math.abs(event.depthDb - depthDb)).toBeLessThan(0.7);
      expect(Math.abs(event.atSeconds - events[i].atSeconds)).toBeLessThan(0.4 * long);
      if (shape === "gate") expect(Math.abs(event.seconds - long)).toBeLessThan(0.0015);
    });
    expect(found.seconds).toBeGreaterThan(5.9);
  });

  it("none is invented in flutter, hum and hiss, where the tone ends, or where its level is changed", () => {
    const noisy = made({ events: [], seconds: 8, hiss: 0.02, hum: 0.1, flutter: 0.006 });
    expect(heard(noisy).events).toEqual([]);
    const ended = made({ events: [], seconds: 6, hiss: 0.0003 });
    ended.fill(0, 3 * RATE);
    expect(heard(ended).events).toEqual([]);
    const lower = made({ events: [], seconds: 6 }).map((v, i) => (i > 3 * RATE ? 0.3 * v : v));
    expect(heard(lower).events).toEqual([]);
    expect(heard(new Float64Array(2 * RATE))).toEqual({ events: [], seconds: 0 });
  });

  it("shallower ones than are asked for do not count", () => {
    const x = made({ events: at([1, 2, 3], 0.02, 5), seconds: 4 });
    expect(heard(x, 6).events).toEqual([]);
    expect(heard(x, 4).events).toHaveLength(3);
  });

  it("over more than one look each is counted once", () => {
    const seconds = Array.from({ length: 24 }, (_, i) => 1 + 1.93 * i);
    const found = heard(made({ events: at(seconds, 0.01, 10), seconds: 48 }));
    expect(found.events.map(({ atSeconds }) => Math.round(atSeconds * 100) / 100)).toEqual(
      seconds.map((s) => Math.round(s * 100) / 100),
    );
    expect(Math.abs(found.seconds - 48)).toBeLessThan(0.1);
  });

  it("those of both channels are the ones at one time", () => {
    expect(together(at([1, 2, 3], 0.01, 8), at([2.004, 5], 0.01, 8))).toBe(1);
  });

  it.each<[string, number, number, boolean]>([
    ["1 kHz on a deck that runs 3 % slow", 970, 11, true],
    ["315 Hz: too low for a short one", 315, 60, false],
    ["a few seconds: no rate a minute", 3150, 5, false],
    ["more than the sample rate holds", 15_000, 60, false],
  ])("%s: counted or not, by one rule", (_, hz, seconds, counted) =>
    expect(countsDropOuts(hz, RATE, seconds)).toBe(counted),
  );

  it("a tone that the sample rate does not hold is refused", () =>
    expect(() => new DropOutMeter(8000, 3150, 6)).toThrow(RangeError));
});
