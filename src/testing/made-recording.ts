import { amplitudeOf } from "@/core/dsp/decibels";
import { interpolateMany } from "@/core/dsp/sinc-interpolator";
import { whiteNoise } from "./fm-tone";
import { sampled } from "@/core/dsp/sampled";

export interface RecorderOptions {
  /** Speed of the playing machine re the recording one. */
  speed?: number;
  /** Peak flutter as a share, at 4 Hz. */
  flutter?: number;
  gainDb?: readonly [number, number];
  /** Third harmonic at −12 dBFS as a share: y = x − a·x³. */
  third?: number;
  /** RMS. */
  noise?: number;
  /** What of each channel comes across into the other. */
  leakDb?: number;
  /** Treble goes through a one-pole low-pass: share of the last sample that stays. */
  dull?: number;
}

const AROUND = 4096;
const BLOCK = 4096;

/** A recorder in closed form: what it does to a sound is known, and owes nothing to the practice machine. */
export function madeRecording(
  sound: readonly [Float64Array, Float64Array],
  rate: number,
  {
    speed = 1,
    flutter = 0,
    gainDb = [0, 0],
    third = 0,
    noise = 0,
    leakDb = -200,
    dull = 0,
  }: RecorderOptions = {},
): [Float64Array, Float64Array] {
  const cubic = (4 * third) / amplitudeOf(-12) ** 2;
  const tracks = sound.map((x, c) => {
    const out = new Float64Array(x.length);
    const gain = amplitudeOf(gainDb[c]);
    let held = 0;
    for (let i = 0; i < x.length; i++) {
      held = dull * held + (1 - dull) * (x[i] - cubic * x[i] ** 3);
      out[i] = gain * held;
    }
    return out;
  });
  const leak = amplitudeOf(leakDb);
  const frames = Math.floor((sound[0].length - 40) / speed);
  const swing = 2 * Math.PI * 4;
  return [0, 1].map((c) => {
    const hiss = whiteNoise(frames, noise, 17 + c);
    // silence on both sides, as far as an interpolation reaches and the flutter strays
    const mixed = new Float64Array(tracks[c].length + 2 * AROUND);
    for (let i = 0; i < tracks[c].length; i++) mixed[AROUND + i] = tracks[c][i] + leak * tracks[1 - c][i];
    // every sample falls on one of those that are there
    if (speed === 1 && flutter === 0) return hiss.map((v, i) => v + mixed[AROUND + i]);
    for (let at = 0; at < frames; at += BLOCK) {
      const out = hiss.subarray(at, at + BLOCK);
      const clean = new Float64Array(out.length);
      const places = sampled(out.length, (i) => {
        const t = (at + i) / rate;
        return AROUND + speed * (t + (flutter * (1 - Math.cos(swing * t))) / swing) * rate;
      });
      interpolateMany(mixed, places, clean);
      for (let i = 0; i < out.length; i++) out[i] += clean[i];
    }
    return hiss;
  }) as [Float64Array, Float64Array];
}

/** Level of that low-pass at a frequency, dB. */
export const dullDb = (dull: number, hz: number, rate: number): number => {
  const w = (2 * Math.PI * hz) / rate;
  return 20 * Math.log10((1 - dull) / Math.hypot(1 - dull * Math.cos(w), dull * Math.sin(w)));
};
