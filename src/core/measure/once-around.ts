import { eachPiece, type Values } from "@/core/dsp/values";

/** The deviation of one part over one of its turns. */
export interface OnceAround {
  /** Percent, at even steps of the turn; its mean is nought. */
  percent: Float64Array;
  /** Turns that were averaged. */
  turns: number;
}

const MOST_STEPS = 180;
const HIGHEST_RATE_HZ = 250;

/**
 * Synchronous average: every turn laid over the others, so that what belongs to the part stands and the rest
 * averages out.
 * @param even deviation as a fraction at even steps of tape (`RateLines.even`), `rateHz` steps a second
 * @param turnsPerSecond rate of the part at mean speed
 */
export function onceAround(even: Values, rateHz: number, turnsPerSecond: number): OnceAround {
  const steps = Math.max(8, Math.min(MOST_STEPS, Math.floor((2 * HIGHEST_RATE_HZ) / turnsPerSecond)));
  const turns = Math.floor((even.length * turnsPerSecond) / rateHz);
  const sums = new Float64Array(steps);
  const counts = new Float64Array(steps);
  const used = Math.min(even.length, Math.floor((turns * rateHz) / turnsPerSecond));
  eachPiece(even, { from: 0, to: used }, (piece, at) => {
    for (let k = 0; k < piece.length; k++) {
      const turn = ((at + k) * turnsPerSecond) / rateHz;
      const step = Math.floor((turn - Math.floor(turn)) * steps);
      sums[step] += piece[k];
      counts[step]++;
    }
  });
  const percent = sums.map((sum, s) => (counts[s] > 0 ? (100 * sum) / counts[s] : 0));
  const mean = percent.reduce((a, b) => a + b, 0) / steps;
  return { percent: percent.map((v) => v - mean), turns };
}

/** A dip or rise that takes up little of the turn is a pulse; anything near half of it is a wave. */
const PULSE_SHARE = 0.25;

export type TurnShape = "wave" | "rise" | "dip";

/** Whether the deviation is a wave once (or more) around, or a short rise or dip: a seam, a flat, a tick. */
export function shapeOf({ percent }: OnceAround): TurnShape {
  const sorted = percent.toSorted();
  const middle = sorted[sorted.length >> 1];
  const high = sorted[sorted.length - 1] - middle;
  const low = middle - sorted[0];
  const up = high >= low;
  const half = middle + (up ? high : -low) / 2;
  const share = percent.filter((v) => (up ? v > half : v < half)).length / percent.length;
  return share > PULSE_SHARE ? "wave" : up ? "rise" : "dip";
}
