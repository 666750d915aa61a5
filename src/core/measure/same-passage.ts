import { amplitudeDb } from "@/core/dsp/decibels";
import { sampled } from "@/core/dsp/sampled";

/** How two recordings of the same passage lie to each other. */
export interface SamePassage {
  /** By so much the second began later in the passage than the first, seconds; negative where it began earlier. */
  laterSeconds: number;
  /** Correlation of how they swell and fade, 0 to 1. */
  likeness: number;
}

/** Less alike they are of two passages, or of one at two speeds that are too far apart. */
export const SAME_LIKENESS = 0.65;
const FRAME_SECONDS = 0.02;
const MOST_APART_SECONDS = 20;
const LEAST_TOGETHER_SECONDS = 5;
/** Of the shorter one so much has to lie under the other: in a few words anything looks alike. */
const LEAST_TOGETHER_SHARE = 0.5;
const FLOOR_DB = -60;

/**
 * Finds how two recordings of one passage lie to each other by how they swell and fade: speed, level and treble may
 * differ, as they do before and after an alignment.
 * @param channels of each, full scale = ±1
 * @returns null where they have less than five seconds in common, or one of them does not swell at all
 */
export function samePassage(
  first: ReadonlyArray<Float32Array>,
  second: ReadonlyArray<Float32Array>,
  sampleRateHz: number,
): SamePassage | null {
  const [a, b] = [first, second].map((channels) => envelopeDb(channels, sampleRateHz));
  const frames = Math.round(MOST_APART_SECONDS / FRAME_SECONDS);
  let best: SamePassage | null = null;
  for (let shift = -frames; shift <= frames; shift++) {
    const likeness = correlation(a, b, shift);
    if (likeness !== null && likeness > (best?.likeness ?? 0))
      best = { laterSeconds: shift * FRAME_SECONDS, likeness };
  }
  return best;
}

function envelopeDb(channels: ReadonlyArray<Float32Array>, sampleRateHz: number): Float64Array {
  const frame = Math.round(FRAME_SECONDS * sampleRateHz);
  return sampled(Math.floor(channels[0].length / frame), (k) => {
    let sum = 0;
    for (const x of channels) for (let i = k * frame; i < (k + 1) * frame; i++) sum += x[i] * x[i];
    return Math.max(FLOOR_DB, amplitudeDb(Math.sqrt(sum / frame / channels.length)));
  });
}

/** Of what lies together when the second is moved by so many frames; null where that is too little. */
function correlation(a: Float64Array, b: Float64Array, shift: number): number | null {
  const from = Math.max(0, shift);
  const to = Math.min(a.length, b.length + shift);
  const n = to - from;
  if (n * FRAME_SECONDS < LEAST_TOGETHER_SECONDS) return null;
  if (n < LEAST_TOGETHER_SHARE * Math.min(a.length, b.length)) return null;
  let [sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0];
  for (let i = from; i < to; i++) {
    const [x, y] = [a[i], b[i - shift]];
    sa += x;
    sb += y;
    saa += x * x;
    sbb += y * y;
    sab += x * y;
  }
  const spread = Math.sqrt(Math.max(0, saa - (sa * sa) / n) * Math.max(0, sbb - (sb * sb) / n));
  return spread < 1e-9 ? null : (sab - (sa * sb) / n) / spread;
}
