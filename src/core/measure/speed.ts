import type { SteadyStretch } from "./steady-stretch";

export interface SpeedResult {
  /** Mean deviation from the nominal frequency, percent, positive = fast. */
  errorPercent: number;
  /** ± at 95 % (k = 2): noise and the wander of the speed over the measured time; nothing of the tape's own. */
  uncertaintyPercent: number;
  /** Slope of the deviation over the measured time. */
  driftPercentPerMinute: number;
  /** Length of the stretch that was measured. */
  seconds: number;
}

/** Spectral lines, in units of 1/duration, from which the wander at rates too slow to see is judged. */
const FIRST_LINE = 2;
const LAST_LINE = 10;

/**
 * Mean speed of a stretch: the Hann-weighted mean of the instantaneous deviation.
 *
 * The weighting keeps flutter that is not a whole number of turns long from leaking into the mean; its price
 * is a standard deviation 1.28 times the Cramér-Rao bound in white noise. What slow wander would do to the
 * mean is judged from the level of the spectrum just above 0 Hz (median of a few lines, so that one wow line
 * does not count as noise), and what those lines leak into the mean is added.
 */
export function speedOf(stretch: Pick<SteadyStretch, "deviation" | "rateHz">): SpeedResult {
  const { deviation, rateHz } = stretch;
  const n = deviation.length;
  const weight = (i: number, length: number) => 1 - Math.cos((2 * Math.PI * (i + 0.5)) / length);

  let sum = 0;
  let moment = 0;
  let inertia = 0;
  for (let i = 0; i < n; i++) {
    const w = weight(i, n);
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
  return {
    errorPercent: 100 * mean,
    uncertaintyPercent: 200 * Math.sqrt(variance),
    driftPercentPerMinute: 100 * slope * rateHz * 60,
    seconds: n / rateHz,
  };
}

/** Interval of a frequency ratio in cents. */
export const cents = (errorPercent: number): number => 1200 * Math.log2(1 + errorPercent / 100);
