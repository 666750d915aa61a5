import { cubicTable } from "@/core/dsp/cubic-table";
import { BIAS_TABLE } from "@/core/standards/bias-curves";

const LOG_HZ = BIAS_TABLE.sensitivityDb.map(({ frequencyHz }) => Math.log(frequencyHz));
const THIRD_DB = BIAS_TABLE.thirdPercent.map((percent) => 20 * Math.log10(percent / 100));

/** The highest frequency, as at cassette speed, of which the table tells. */
export const HIGHEST_TABLED_HZ = Math.max(...BIAS_TABLE.sensitivityDb.map(({ frequencyHz }) => frequencyHz));

/**
 * Level of a low tone re that at the recommended bias, dB, from the bias table of an ordinary tape.
 * @param biasDb re the recommended bias
 * @param frequencyHz as at cassette speed
 */
export function sensitivityDb(biasDb: number, frequencyHz: number): number {
  const rows = BIAS_TABLE.sensitivityDb.map(({ db }) => cubicTable(BIAS_TABLE.biasDb, db, biasDb));
  return cubicTable(LOG_HZ, rows, Math.max(LOG_HZ[0], Math.log(frequencyHz)));
}

/** Third harmonic at 0 level re its tone, dB, likewise. */
export const thirdDb = (biasDb: number): number => cubicTable(BIAS_TABLE.biasDb, THIRD_DB, biasDb);
