import { meanOf } from "@/core/dsp/mean";
import { longMean } from "./slow-wander";
import type { SteadyStretch } from "./steady-stretch";

export interface SpeedResult {
  /** Mean deviation from the nominal frequency, percent, positive = fast. */
  errorPercent: number;
  /**
   * ± at 95 % (k = 2) of the machine's own mean speed, of which the stretch is a sample: noise, wander of the speed, wow
   * that is slower than the stretch is long, and what is left of a speed that still creeps. Nothing of the tape's own.
   */
  uncertaintyPercent: number;
  /** By how much it crept over the stretch in one direction, percent; 0 where that is no more than its wander. */
  creepPercent: number;
  /** Another tone beats with it, nearly as strong as itself: which of them was followed nobody knows. */
  beats: boolean;
  /** Slope of the deviation over the measured time. */
  driftPercentPerMinute: number;
  /** ± at 95 % of that slope, by noise and wander. */
  driftUncertaintyPercentPerMinute: number;
  /** Length of the stretch that was measured. */
  seconds: number;
}

/** Values by which slow wander is judged. */
const COARSE = 160;
/** Smaller creeping is of no consequence, percent; and so is what its wander may look like, so many times. */
const LEAST_CREEP_PERCENT = 0.02;
const CREEPS = 4;

/** Spectral lines, in units of 1/duration, from which the wander at rates too slow to see is judged. */
const FIRST_LINE = 2;
const LAST_LINE = 10;

/**
 * Mean speed of a stretch: the Hann-weighted mean of the instantaneous deviation.
 *
 * The weighting keeps flutter that is not a whole number of turns long from leaking into the mean; its price
 * is a standard deviation 1.28 times the Cramér-Rao bound in white noise. How far the machine's own mean may be from
 * that is judged in two ways, of which the worse counts: by the level of the spectrum just above 0 Hz (median of a few
 * lines, so that one wow line does not count as noise) with what those lines leak into the mean, and by every slow wow
 * that may explain what was seen (`longMean`).
 */
export function speedOf(
  stretch: Pick<SteadyStretch, "deviation" | "rateHz"> &
    Partial<Pick<SteadyStretch, "amplitude" | "bridged">>,
): SpeedResult {
  const { deviation, rateHz, amplitude, bridged = [] } = stretch;
  const n = deviation.length;
  const weight = (i: number, length: number) => 1 - Math.cos((2 * Math.PI * (i + 0.5)) / length);

  let sum = 0;
  let moment = 0;
  let inertia = 0;
  // the Hann window, its cosine turned on from place to place
  const step = (2 * Math.PI) / n;
  const [turnCos, turnSin] = [Math.cos(step), Math.sin(step)];
  let [c, s] = [Math.cos(step / 2), Math.sin(step / 2)];
  for (let i = 0; i < n; i++) {
    const w = 1 - c;
    const turned = c * turnCos - s * turnSin;
    s = s * turnCos + c * turnSin;
    c = turned;
    const t = i - (n - 1) / 2;
    sum += w * deviation[i];
    moment += w * t * deviation[i];
    inertia += w * t * t;
  }
  const mean = sum / n;
  const slope = moment / inertia;

  const block = Math.max(1, Math.floor(n / 512));
  const count = Math.floor(n / block);
  const coarse = new Float64Array(count);
  for (let b = 0; b < count; b++) {
    let s = 0;
    for (let j = 0; j < block; j++) s += deviation[b * block + j];
    const t = b * block + (block - 1) / 2 - (n - 1) / 2;
    coarse[b] = s / block - mean - slope * t;
  }
  const lines: number[] = [];
  let leaked = 0;
  for (let k = FIRST_LINE; k <= LAST_LINE; k++) {
    let re = 0;
    let im = 0;
    for (let b = 0; b < count; b++) {
      const angle = (2 * Math.PI * k * (b + 0.5)) / count;
      const v = weight(b, count) * coarse[b];
      re += v * Math.cos(angle);
      im += v * Math.sin(angle);
    }
    const power = (re * re + im * im) / (count * count);
    lines.push(power);
    const leakage = 0.75 / (k * (k * k - 1)); // largest side lobe of the Hann window, k lines away
    leaked += power * leakage * leakage;
  }
  lines.sort((a, b) => a - b);
  const median = lines[lines.length >> 1];
  const variance = (1.3 * median) / Math.LN2 + leaked;
  const crept = 100 * slope * n;
  const least = Math.max(LEAST_CREEP_PERCENT, CREEPS * 200 * Math.sqrt(variance));
  const creepPercent = Math.abs(crept) > least ? crept : 0;
  const long = longMean(meansOf(deviation));
  const ownPercent = 200 * Math.sqrt(Math.max(variance, long.variance + (long.mean - mean) ** 2));
  const gone = bridged.filter(({ lost }) => !lost).length;
  const beats = amplitude !== undefined && (beatsWith(amplitude) || gone > (GONE_PER_SECOND * n) / rateHz);
  return {
    errorPercent: 100 * mean,
    // a speed that settles has about as far to go as it came while it was heard
    uncertaintyPercent: ownPercent + Math.abs(creepPercent) + (beats ? BEATEN_PERCENT : 0),
    creepPercent,
    beats,
    driftPercentPerMinute: 100 * slope * rateHz * 60,
    // a slope over the whole stretch is known √12 times worse than the mean, over its length
    driftUncertaintyPercentPerMinute: (200 * Math.sqrt(12 * variance) * 60 * rateHz) / n,
    seconds: n / rateHz,
  };
}

/** A tone's amplitude that is modulated by more than this share (RMS) has another one beside it, nearly as strong. */
const BEATING_SHARE = 0.25;
/** One that is gone so often is taken away by its like, not by the tape. */
const GONE_PER_SECOND = 2;
/** How far such a tone may be, percent of the carrier: the width of what is followed. */
const BEATEN_PERCENT = 15;

function beatsWith(amplitude: SteadyStretch["amplitude"]): boolean {
  const mean = meanOf(amplitude);
  let square = 0;
  for (let i = 0; i < amplitude.length; i++) square += (amplitude[i] - mean) ** 2;
  return Math.sqrt(square / amplitude.length) > BEATING_SHARE * mean;
}

/** The deviation as means of even blocks. */
function meansOf(deviation: SteadyStretch["deviation"]): Float64Array {
  const count = Math.min(COARSE, deviation.length);
  const means = new Float64Array(count);
  for (let b = 0; b < count; b++) {
    const [from, to] = [b, b + 1].map((edge) => Math.floor((edge * deviation.length) / count));
    let sum = 0;
    for (let i = from; i < to; i++) sum += deviation[i];
    means[b] = sum / (to - from);
  }
  return means;
}

/** Interval of a frequency ratio in cents. */
export const cents = (errorPercent: number): number => 1200 * Math.log2(1 + errorPercent / 100);
