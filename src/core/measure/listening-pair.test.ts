import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { listeningPair } from "./listening-pair";
import { loudness } from "./loudness";
import { SAME_LIKENESS, samePassage } from "./same-passage";
import { sampled } from "@/core/dsp/sampled";

const sine = (hz: number, amplitude: number, seconds: number, rate: number) =>
  sampled(seconds * rate, (i) => amplitude * Math.sin((2 * Math.PI * hz * i) / rate));

describe("loudness", () => {
  // the standard's own: 997 Hz at full scale in one channel is −3.01
  it.each([44_100, 48_000, 96_000])("of the standard's tone at %d samples a second", (rate) => {
    expect(loudness([sine(997, 1, 4, rate), new Float64Array(4 * rate)], rate)).toBeCloseTo(-3.01, 1);
    expect(loudness([sine(997, 0.1, 4, rate), sine(997, 0.1, 4, rate)], rate)).toBeCloseTo(-20, 1);
  });

  it("silence has none, and a pause does not make it quieter", () => {
    expect(loudness([new Float64Array(48_000)], 48_000)).toBe(-Infinity);
    const tone = sine(997, 0.1, 4, 48_000);
    const withPause = new Float64Array(8 * 48_000);
    withPause.set(tone);
    expect(Math.abs(loudness([withPause], 48_000) - loudness([tone], 48_000))).toBeLessThan(0.3);
  });
});

/** Words: bursts of noise of different strength and length. */
function passage(seconds: number, rate: number, speed = 1): Float32Array {
  const random = new SeededRandom(4);
  const words: Array<{ at: number; length: number; loud: number }> = [];
  for (let at = 0; at < seconds;) {
    const length = 0.1 + 0.5 * random.uniform();
    words.push({ at, length, loud: random.uniform() < 0.25 ? 0 : 0.02 + 0.3 * random.uniform() });
    at += length;
  }
  const noise = new SeededRandom(5);
  return Float32Array.from({ length: Math.round(seconds * rate) }, (_, i) => {
    const at = (i / rate) * speed;
    const word = words.find((one) => at >= one.at && at < one.at + one.length);
    return (word?.loud ?? 0) * noise.normal() * 0.3;
  });
}

describe("two recordings of one passage", () => {
  const rate = 8000;
  const whole = passage(40, rate);
  const piece = (from: number, seconds: number, gain = 1) =>
    whole.slice(from * rate, (from + seconds) * rate).map((x) => gain * x);

  it.each([0, 3.4, -6])("the second began %d s later: found to a frame, whatever its level", (later) => {
    const found = samePassage([piece(8, 25)], [piece(8 + later, 25, 0.2)], rate)!;
    expect(Math.abs(found.laterSeconds - later)).toBeLessThan(0.03);
    expect(found.likeness).toBeGreaterThan(0.95);
  });

  it("at a speed one in a hundred higher it is still found", () => {
    const fast = passage(30, rate, 1.01);
    const found = samePassage([whole.slice(0, 25 * rate)], [fast.slice(2 * rate, 27 * rate)], rate)!;
    expect(Math.abs(found.laterSeconds - 2)).toBeLessThan(0.4);
    expect(found.likeness).toBeGreaterThan(SAME_LIKENESS);
  });

  it("another passage is not alike; a tone and too short a piece tell nothing", () => {
    const other = Float32Array.from(whole.slice(0, 25 * rate)).reverse();
    expect(samePassage([piece(0, 25)], [other], rate)!.likeness).toBeLessThan(SAME_LIKENESS);
    const tone = Float32Array.from(sine(400, 0.3, 25, rate));
    expect(samePassage([piece(0, 25)], [tone], rate)?.likeness ?? 0).toBeLessThan(SAME_LIKENESS);
    expect(samePassage([piece(0, 3)], [piece(0, 3)], rate)).toBeNull();
  });
});

describe("two sounds for the ear", () => {
  const RATE = 8000;
  const heard = (x: Float32Array) => ({ channels: [x], sampleRateHz: RATE });
  const whole = passage(24, RATE);

  it("of one passage begin where both have it, with the loudness of each", () => {
    const late = whole.slice(3 * RATE).map((v) => 0.5 * v);
    const pair = listeningPair(heard(whole), heard(late));
    expect(pair.samePassage).toBe(true);
    expect(pair.fromSeconds).toEqual([expect.closeTo(3, 1), 0]);
    expect(pair.seconds).toBeCloseTo(21, 1);
    expect(pair.loudness[0] - pair.loudness[1]).toBeCloseTo(6, 0);
  });

  it("of two passages begin each at its start", () => {
    const other = whole.slice().reverse();
    expect(listeningPair(heard(whole), heard(other))).toMatchObject({
      samePassage: false,
      fromSeconds: [0, 0],
    });
  });

  it("are refused with a sentence where one is silent, or too short", () => {
    const silent = new Float32Array(10 * RATE);
    expect(() => listeningPair(heard(whole), heard(silent))).toThrow("One of them is silent");
    expect(() => listeningPair(heard(whole), heard(whole.slice(0, 2 * RATE)))).toThrow("three seconds");
  });
});
