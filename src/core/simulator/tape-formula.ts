import { cubicTable } from "@/core/dsp/cubic-table";
import { asAtCassetteSpeed, BIAS_TABLE } from "@/core/standards/bias-curves";
import type { TapeType } from "@/core/standards/tape-types";
import type { Wear } from "./worn-places";

/** The coating of a tape to record on, beside an ordinary one of its type. */
export interface TapeFormula {
  type: TapeType;
  /** How much more bias it wants, dB. */
  biasDb: number;
  sensitivityDb: number;
  /** At 12.5 kHz and cassette speed. */
  trebleDb: number;
  /** Where it does not lie well on the head; none when left out. */
  wear?: Wear;
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
  if (biasDb < LEAST_KNOWN_DB)
    return sensitivityDb(LEAST_KNOWN_DB, frequencyHz, speedCmPerS) + deafDb(biasDb);
  const at = Math.log(asAtCassetteSpeed(Math.max(20, frequencyHz), speedCmPerS));
  const rows = BIAS_TABLE.sensitivityDb.map(({ db }) => cubicTable(BIAS_TABLE.biasDb, db, biasDb));
  const above = LOG_HZ.findIndex((log) => log > at);
  if (above === 0) return rows[0];
  const i = above < 0 ? rows.length - 1 : above;
  const share = (at - LOG_HZ[i - 1]) / (LOG_HZ[i] - LOG_HZ[i - 1]);
  // beyond the table the top goes on as it did, for a third of an octave
  return rows[i - 1] + Math.min(1.6, share) * (rows[i] - rows[i - 1]);
}

/** Third harmonic of a tone at the reference level, as a share. */
export const thirdShare = (biasDb: number): number =>
  Math.exp(
    cubicTable(
      BIAS_TABLE.biasDb,
      BIAS_TABLE.thirdPercent.map(Math.log),
      // without bias a tape distorts as badly as it can
      Math.max(WORST_DB, biasDb),
    ),
  ) / 100;

/** Far below the table there is hardly a recording: it goes by so much for each dB, down to what a tape takes without bias. */
const LEAST_KNOWN_DB = -8;
const WORST_DB = -9;
const LOST_PER_DB = 1.2;
const MOST_LOST_DB = 14;
const deafDb = (biasDb: number): number => Math.max(-MOST_LOST_DB, LOST_PER_DB * (biasDb - LEAST_KNOWN_DB));

/** What a change of the treble does at a frequency, dB: all of it at 12.5 kHz, half an octave and a half below. */
export function trebleShelfDb(db: number, frequencyHz: number): number {
  const octaves = Math.log2(Math.max(20, frequencyHz) / TREBLE_HZ);
  return (db * 1.06) / (1 + Math.exp(-2.4 * (octaves + 1.18)));
}
