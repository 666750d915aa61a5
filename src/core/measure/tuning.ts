import { summitNear } from "@/core/dsp/spectral-summit";
import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";

export interface Tuning {
  /** Speed if the players were tuned to the standard: percent, within half a semitone either way; null when none. */
  speedErrorPercent: number | null;
  uncertaintyPercent: number;
  /** 0 for notes anywhere, 1 for notes that all stand on one scale. */
  agreement: number;
  notes: number;
}

const FRAME_SECONDS = 0.5;
const LOWEST_HZ = 160;
const HIGHEST_HZ = 1800;
const LOUD = 20;
/** A note counts when the next frame has it within so many cents. */
const SUSTAINED_CENTS = 12;
/** Players tune to within so much of the standard, ± at 95 %. */
const PERFORMANCE_CENTS = 12;
const LEAST_AGREEMENT = 0.55;
const LEAST_NOTES = 12;

/**
 * Tuning of sustained notes against equal temperament on a concert pitch (ISO 16: 440 Hz). Only the part within a
 * semitone is known: a speed that is a whole semitone off sounds right.
 * @param x mono
 */
export function tuningOf(x: Float32Array, rateHz: number, concertHz = 440): Tuning {
  const length = Math.round(FRAME_SECONDS * rateHz);
  const size = 4 * 2 ** Math.ceil(Math.log2(length));
  let before: number[] = [];
  let re = 0;
  let im = 0;
  let weight = 0;
  let notes = 0;
  for (let start = 0; start + length <= x.length; start += length >> 1) {
    const { amplitude, binHz } = amplitudeSpectrum(x.subarray(start, start + length), rateHz, size, length);
    const peaks = peaksOf(amplitude, binHz);
    for (const { cents, loud } of peaks) {
      if (!before.some((c) => Math.abs(c - cents) < SUSTAINED_CENTS)) continue;
      const offset = cents - 1200 * Math.log2(concertHz);
      re += loud * Math.cos((2 * Math.PI * offset) / 100);
      im += loud * Math.sin((2 * Math.PI * offset) / 100);
      weight += loud;
      notes++;
    }
    before = peaks.map(({ cents }) => cents);
  }
  const agreement = weight > 0 ? Math.hypot(re, im) / weight : 0;
  const spread = (100 / (2 * Math.PI)) * Math.sqrt(Math.max(0, -2 * Math.log(Math.max(agreement, 1e-9))));
  const cents = (100 / (2 * Math.PI)) * Math.atan2(im, re);
  const known = agreement >= LEAST_AGREEMENT && notes >= LEAST_NOTES;
  const uncertainCents = Math.hypot(PERFORMANCE_CENTS, (2 * spread) / Math.sqrt(Math.max(1, notes / 4)));
  return {
    speedErrorPercent: known ? 100 * (2 ** (cents / 1200) - 1) : null,
    uncertaintyPercent: 100 * (2 ** (uncertainCents / 1200) - 1),
    agreement,
    notes,
  };
}

/** Places of the spectrum's summits in cents above 1 Hz. */
function peaksOf(amplitude: Float64Array, binHz: number): Array<{ cents: number; loud: number }> {
  const from = Math.floor(LOWEST_HZ / binHz);
  const to = Math.min(amplitude.length - 2, Math.ceil(HIGHEST_HZ / binHz));
  const sorted = amplitude.slice(from, to).sort();
  const floor = LOUD * (sorted[sorted.length >> 1] ?? 0);
  const strongest = sorted[sorted.length - 1] ?? 0;
  const out: Array<{ cents: number; loud: number }> = [];
  for (let k = from; k < to; k++) {
    const [a, b, c] = [amplitude[k - 1], amplitude[k], amplitude[k + 1]];
    if (!(b > a && b >= c && b > floor && b > 0.03 * strongest)) continue;
    out.push({
      cents: 1200 * Math.log2((k + summitNear(amplitude, k).shift) * binHz),
      loud: Math.sqrt(b / strongest),
    });
  }
  return out;
}
