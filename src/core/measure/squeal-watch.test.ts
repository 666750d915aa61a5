import { describe, expect, it } from "vitest";
import { SquealWatch, type Squeal } from "./squeal-watch";
import { sampled } from "@/core/dsp/sampled";
import { harmonicSum } from "@/testing/sine-wave";

const RATE = 48000;
const BLOCK = 4800;
function randoms(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 22695477) + 1) >>> 0;
    return state / 2 ** 32;
  };
}
type Sound = (seconds: number) => number;

/** Hears a sound, and says when it was told first. */
function watched(
  sound: Sound,
  seconds: number,
  { toneHz = null, speed = () => 0 }: { toneHz?: number | null; speed?: (seconds: number) => number } = {},
): { told: Squeal; at: number } | null {
  const watch = new SquealWatch(RATE);
  for (let from = 0; from < seconds * RATE; from += BLOCK) {
    watch.plays(toneHz, toneHz === null ? null : speed(from / RATE));
    watch.push(sampled(BLOCK, (i) => sound((from + i) / RATE)));
    if (watch.result) return { told: watch.result, at: from / RATE };
  }
  return null;
}

const sine = (hz: number, t: number) => Math.sin(2 * Math.PI * hz * t);
const noise = (db: number, seed = 5): Sound => {
  const random = randoms(seed);
  const gain = 10 ** (db / 20);
  return () => gain * (random() + random() - 1);
};
const hum: Sound = (t) => 0.01 * harmonicSum(50 * t, [1, 0, 0.5, 0, 0.3]);
const VOICE = Array.from({ length: 20 }, (_, n) => 1 / (n + 1));
/** Syllables of voiced harmonics whose pitch glides, fricatives between, pauses. */
function speech(seed = 11): Sound {
  const random = randoms(seed);
  let ends = 0;
  let [pitch, glide, loud, voiced, from] = [120, 0, 0, true, 0];
  let phase = 0;
  let before = 0;
  return (t) => {
    if (t >= ends) {
      from = t;
      ends = t + 0.08 + 0.25 * random();
      [pitch, glide] = [90 + 120 * random(), 80 * (random() - 0.5)];
      [loud, voiced] = [random() < 0.2 ? 0 : 0.1 + 0.1 * random(), random() < 0.75];
    }
    const hz = pitch + glide * (t - from);
    phase += (hz * (t - before)) % 1;
    before = t;
    if (!voiced) return 0.2 * loud * (random() + random() - 1);
    return loud * harmonicSum(phase, VOICE);
  };
}
/** A stick-slip whistle: it wanders, and its strength flickers. */
const whistle = (fromSeconds: number, hz = 2300): Sound => {
  let phase = 0;
  let before = 0;
  return (t) => {
    phase += hz * (1 + 0.006 * sine(0.9, t) + 0.002 * sine(4.3, t)) * (t - before);
    before = t;
    return t < fromSeconds ? 0 : 0.05 * (0.7 + 0.3 * sine(7, t)) * Math.sin(2 * Math.PI * phase);
  };
};
const all =
  (...sounds: Sound[]): Sound =>
  (t) =>
    sounds.reduce((sum, sound) => sum + sound(t), 0);

describe("a tape that squeals", () => {
  it.each([1100, 2300, 5200])("in speech at %d Hz: told within three seconds", (hz) => {
    const heard = watched(all(speech(), hum, noise(-55), whistle(4, hz)), 9);
    expect(heard!.told.kind).toBe("squeal");
    expect(Math.abs(heard!.told.frequencyHz! / hz - 1)).toBeLessThan(0.02);
    expect(heard!.at).toBeGreaterThan(4);
    expect(heard!.at).toBeLessThan(7.1);
  });

  it("on a steady tone, which it roughens: told within three seconds", () => {
    const rough = all(
      (t) => 0.3 * sine(3150 * (1 + 0.0005 * sine(2, t)), 0) + 0.3 * sine(3150, t),
      noise(-65),
      whistle(8, 2300),
    );
    const heard = watched(rough, 14, { toneHz: 3150 });
    expect(heard!.told.kind).toBe("squeal");
    expect(heard!.at).toBeGreaterThan(8);
    expect(heard!.at).toBeLessThan(11.1);
  });

  it("that drags more and more: slower and rougher", () => {
    const grows = (t: number) => Math.max(0, t - 12) / 10;
    const hiss = noise(0, 9);
    const drags: Sound = (t) => 0.3 * sine(3150, t) + 0.0008 * (1 + 12 * grows(t)) * hiss(t);
    const heard = watched(drags, 30, { toneHz: 3150, speed: (t) => -1.5 * grows(t) });
    expect(heard!.told.kind).toBe("drag");
  });

  it.each<[string, Sound, number | null]>([
    ["speech and hum", all(speech(), hum, noise(-50)), null],
    ["another voice", all(speech(99), hum, noise(-60)), null],
    ["hiss alone", noise(-40), null],
    ["a tone that nobody knows", all((t) => 0.2 * sine(1000, t), noise(-60)), null],
    ["a tone that ends", (t) => (t < 10 ? 0.3 * sine(3150, t) : 0) + 0.001 * sine(700 + t, t), 3150],
    ["two tones", all((t) => 0.2 * sine(1000, t) + 0.1 * sine(8000, t), noise(-60)), null],
    ["a steady tone with hum", all((t) => 0.3 * sine(3150, t), hum, noise(-55)), 3150],
    ["a tone with flutter", (t) => 0.3 * Math.sin(2 * Math.PI * 3150 * t + 3 * sine(4, t)), 3150],
  ])("%s: no alarm", (_, sound, toneHz) => {
    expect(watched(sound, 25, { toneHz })).toBeNull();
  });

  it("is forgotten when it has stopped", () => {
    const watch = new SquealWatch(RATE);
    const squeals = whistle(0);
    const quiet = noise(-60);
    const hear = (sound: Sound, from: number, seconds: number) => {
      for (let at = from; at < from + seconds; at += BLOCK / RATE)
        watch.push(sampled(BLOCK, (i) => sound(at + i / RATE)));
    };
    hear(squeals, 0, 7);
    expect(watch.result).not.toBeNull();
    hear(quiet, 7, 6);
    expect(watch.result).toBeNull();
  });
});
