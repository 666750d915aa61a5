import { asAtCassetteSpeed, BIAS_TABLE } from "@/core/standards/bias-curves";
import type { TapeType } from "@/core/standards/tape-types";

/** The coating of a tape to record on, beside an ordinary one of its type. */
export interface TapeFormula {
  type: TapeType;
  /** How much more bias it wants, dB. */
  biasDb: number;
  sensitivityDb: number;
  /** At 12.5 kHz and cassette speed. */
  trebleDb: number;
}

export const ordinary = (type: TapeType): TapeFormula => ({ type, biasDb: 0, sensitivityDb: 0, trebleDb: 0 });

const LOG_HZ = BIAS_TABLE.sensitivityDb.map(({ frequencyHz }) => Math.log(frequencyHz));
/** Where a tape's own treble is told, and how broadly it sets in. */
const TREBLE_HZ = 12_500;

/**
 * Sensitivity of a tape 20 dB down at a bias and frequency, dB re what it has at its recommended bias.
 * @param biasDb re the recommended one of this tape
 */
export function sensitivityDb(biasDb: number, frequencyHz: number, speedCmPerS: number): number {
  const at = Math.log(asAtCassetteSpeed(Math.max(20, frequencyHz), speedCmPerS));
  const rows = BIAS_TABLE.sensitivityDb.map(({ db }) => smooth(BIAS_TABLE.biasDb, db, biasDb));
  const above = LOG_HZ.findIndex((log) => log > at);
  if (above === 0) return rows[0];
  const i = above < 0 ? rows.length - 1 : above;
  const share = (at - LOG_HZ[i - 1]) / (LOG_HZ[i] - LOG_HZ[i - 1]);
  // beyond the table the top goes on as it did, for a third of an octave
  return rows[i - 1] + Math.min(1.6, share) * (rows[i] - rows[i - 1]);
}

/** Third harmonic of a tone at the reference level, as a share. */
export const thirdShare = (biasDb: number): number =>
  Math.exp(smooth(BIAS_TABLE.biasDb, BIAS_TABLE.thirdPercent.map(Math.log), biasDb)) / 100;

/** What a change of the treble does at a frequency, dB: all of it at 12.5 kHz, half an octave and a half below. */
export function trebleShelfDb(db: number, frequencyHz: number): number {
  const octaves = Math.log2(Math.max(20, frequencyHz) / TREBLE_HZ);
  return (db * 1.06) / (1 + Math.exp(-2.4 * (octaves + 1.18)));
}

/** Through the points of a table by cubic pieces (Catmull and Rom 1974), straight on beyond its ends. */
function smooth(xs: readonly number[], ys: readonly number[], x: number): number {
  const last = xs.length - 1;
  const slope = (i: number) =>
    i <= 0
      ? (ys[1] - ys[0]) / (xs[1] - xs[0])
      : i >= last
        ? (ys[last] - ys[last - 1]) / (xs[last] - xs[last - 1])
        : (ys[i + 1] - ys[i - 1]) / (xs[i + 1] - xs[i - 1]);
  if (x <= xs[0]) return ys[0] + slope(0) * (x - xs[0]);
  if (x >= xs[last]) return ys[last] + slope(last) * (x - xs[last]);
  const i = xs.findIndex((other) => other > x) - 1;
  const width = xs[i + 1] - xs[i];
  const t = (x - xs[i]) / width;
  const [a, b] = [width * slope(i), width * slope(i + 1)];
  return (
    ys[i] * (1 + 2 * t) * (1 - t) ** 2 +
    a * t * (1 - t) ** 2 +
    ys[i + 1] * t * t * (3 - 2 * t) +
    b * t * t * (t - 1)
  );
}
