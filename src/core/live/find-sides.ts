import { hannWindow } from "@/core/dsp/hann-window";
import { powerDb } from "@/core/dsp/decibels";
import { sampled } from "@/core/dsp/sampled";

/** What a tone on one side only says about leads and polarity. */
export interface SideFinding {
  /** Side on which the tone arrived, or both. */
  heardOn: "left" | "right" | "both";
  /** Whether it arrived upside down; null when the tone cannot tell. */
  inverted: boolean | null;
}

const ONE_SIDED_DB = 15;
const SECONDS = 1;

/**
 * Judges the last second of a tone that was sent on one side only. The test tone is two sines, f and 2f, that start
 * upwards together: the phase of the second against twice that of the first is 90° as sent and −90° inverted,
 * whatever the delay.
 * @throws Error with a sentence for the user when nothing is heard
 */
export function findSides(channels: Float32Array[], sampleRateHz: number): SideFinding {
  if (channels.length < 2)
    throw new Error("This input has one channel only; left and right cannot be told apart.");
  const frames = Math.round(SECONDS * sampleRateHz);
  if (channels[0].length < frames) throw new Error("Listen for a second before asking.");
  const [left, right] = channels.map((channel) => channel.subarray(channel.length - frames));
  const power = (x: Float32Array) => x.reduce((sum, v) => sum + v * v, 0) / x.length;
  const [leftPower, rightPower] = [power(left), power(right)];
  if (Math.max(leftPower, rightPower) < 1e-7)
    throw new Error("Nothing arrives. Play the tone of the sequence “Which side is which”, then ask again.");
  const difference = powerDb((leftPower + 1e-12) / (rightPower + 1e-12));
  const heardOn = difference > ONE_SIDED_DB ? "left" : difference < -ONE_SIDED_DB ? "right" : "both";
  return { heardOn, inverted: inverted(leftPower > rightPower ? left : right, sampleRateHz) };
}

function inverted(tone: Float32Array, sampleRateHz: number): boolean | null {
  const window = hannWindow(tone.length);
  const x = sampled(tone.length, (i) => window[i] * tone[i]);
  let [bestHz, best] = [0, 0];
  for (let hz = 360; hz <= 440; hz += 0.5) {
    const { re, im } = line(x, hz / sampleRateHz);
    const power = re * re + im * im;
    if (power > best) [bestHz, best] = [hz, power];
  }
  const f = line(x, bestHz / sampleRateHz);
  const second = line(x, (2 * bestHz) / sampleRateHz);
  if (Math.hypot(second.re, second.im) < 0.1 * Math.hypot(f.re, f.im)) return null;
  const phase = Math.atan2(second.im, second.re) - 2 * Math.atan2(f.im, f.re);
  return Math.sin(phase) < 0;
}

/** Fourier sum of windowed samples at so many cycles per sample, its phase counted from the middle. */
function line(x: Float64Array, cyclesPerSample: number): { re: number; im: number } {
  let [re, im] = [0, 0];
  const step = 2 * Math.PI * cyclesPerSample;
  // turned on from sample to sample
  const [turnRe, turnIm] = [Math.cos(step), Math.sin(step)];
  let [c, s] = [Math.cos((step * x.length) / 2), -Math.sin((step * x.length) / 2)];
  for (let i = 0; i < x.length; i++) {
    re += x[i] * c;
    im -= x[i] * s;
    const before = c;
    c = c * turnRe - s * turnIm;
    s = before * turnIm + s * turnRe;
  }
  return { re, im };
}
