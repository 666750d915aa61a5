import { powerDb, powerOf } from "@/core/dsp/decibels";

/** Level at one frequency of a band that holds many: a sweep or noise. */
export interface WideLevel {
  frequencyHz: number;
  /** Of a sweep: dBFS of a sine; of noise: dB re an unstated level that is the same at all frequencies. */
  levelDb: number;
  /** How far the level strays while it is measured, or from its neighbours, standard deviation. */
  spreadDb: number;
  /** ± at 95 %, of the measurement alone. */
  uncertaintyDb: number;
}

/** Twenty to the decade, about a sixth of an octave apart: the R 20 series of ISO 3, exact. */
const PER_DECADE = 20;

/** The frequencies of that series inside a range, lowest first. */
export function seriesBetween(fromHz: number, toHz: number): number[] {
  const first = Math.ceil(PER_DECADE * Math.log10(fromHz) - 1e-9);
  const last = Math.floor(PER_DECADE * Math.log10(toHz) + 1e-9);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => 10 ** ((first + i) / PER_DECADE));
}

/** Level of all bands together, dB. */
export const levelTogether = (levels: readonly WideLevel[]): number =>
  powerDb(levels.reduce((sum, { levelDb }) => sum + powerOf(levelDb), 0));
