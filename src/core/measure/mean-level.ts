import { powerDb, powerOf } from "@/core/dsp/decibels";

/** The level of the mean power of several levels, dB. */
export const meanLevelDb = (levelsDb: readonly number[]): number =>
  powerDb(levelsDb.reduce((sum, db) => sum + powerOf(db), 0) / levelsDb.length);
