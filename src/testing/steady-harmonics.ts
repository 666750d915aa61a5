import { amplitudeDb } from "@/core/dsp/decibels";
import { besselI0 } from "@/core/dsp/kaiser-lowpass";
import { sampled } from "@/core/dsp/sampled";
import { sineWave } from "./sine-wave";

/** Kaiser window whose side lobes lie 150 dB down. */
const BETA = 21;
/** The frequency is sought in a short piece first, where a larger error cannot be mistaken for a whole turn. */
const SHARES = [1 / 64, 1 / 16, 1 / 4, 1, 1];
const SHORTEST_CYCLES = 25;

export interface Harmonics {
  frequencyHz: number;
  fundamentalDbfs: number;
  /** From the second on, in dB relative to the fundamental. */
  harmonicsDb: number[];
}

/**
 * Fundamental and harmonics of a steady tone near `nearHz`: windowed Fourier sums at the tone's own frequency, which
 * is found from the phase between the two halves, and its multiples.
 * @throws RangeError when the stretch is shorter than fifty cycles
 */
export function harmonicsOf(
  x: ArrayLike<number>,
  sampleRateHz: number,
  nearHz: number,
  count = 9,
): Harmonics {
  if ((x.length / sampleRateHz) * nearHz < 50)
    throw new RangeError(
      `harmonics of ${nearHz} Hz need at least fifty cycles; ${x.length} samples are too few`,
    );
  const least = Math.ceil((2 * SHORTEST_CYCLES * sampleRateHz) / nearHz);
  const windows = new Map<number, Float64Array>();
  const lineAt = (from: number, length: number, hz: number) => {
    const window = windows.get(length) ?? windowOf(length);
    windows.set(length, window);
    return lineIn(x, from, window, sampleRateHz, hz);
  };
  let frequencyHz = nearHz;
  for (const share of SHARES) {
    const half = Math.min(x.length, Math.max(least, Math.round(share * x.length))) >> 1;
    const a = lineAt(0, half, frequencyHz);
    const b = lineAt(half, half, frequencyHz);
    const turned = Math.atan2(b.im * a.re - b.re * a.im, b.re * a.re + b.im * a.im);
    frequencyHz += (turned * sampleRateHz) / (2 * Math.PI * half);
  }
  const amplitude = (hz: number) => {
    const { re, im } = lineAt(0, x.length, hz);
    return Math.hypot(re, im);
  };
  const fundamental = amplitude(frequencyHz);
  const harmonics = Array.from({ length: count }, (_, i) => (i + 2) * frequencyHz).filter(
    (hz) => hz < 0.48 * sampleRateHz,
  );
  return {
    frequencyHz,
    fundamentalDbfs: amplitudeDb(fundamental),
    harmonicsDb: harmonics.map((hz) => amplitudeDb(amplitude(hz)) - amplitudeDb(fundamental)),
  };
}

const windowOf = (length: number) =>
  sampled(length, (i) => {
    const place = (2 * i) / (length - 1) - 1;
    return besselI0(BETA * Math.sqrt(Math.max(0, 1 - place * place)));
  });

/** Complex amplitude of the line at `hz` in the stretch under the window, its phase counted from sample 0 of `x`. */
function lineIn(x: ArrayLike<number>, from: number, window: Float64Array, sampleRateHz: number, hz: number) {
  let [re, im, sum] = [0, 0, 0];
  const step = hz / sampleRateHz;
  const begins = 2 * Math.PI * ((step * from) % 1);
  const cosine = sineWave(window.length, step, begins + Math.PI / 2);
  const sine = sineWave(window.length, step, begins);
  for (let i = 0; i < window.length; i++) {
    const value = window[i] * x[from + i];
    re += value * cosine[i];
    im -= value * sine[i];
    sum += window[i];
  }
  return { re: (2 * re) / sum, im: (2 * im) / sum };
}
