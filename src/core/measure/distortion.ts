import type { Samples } from "@/core/dsp/signal";
import { foreignLine, type ForeignLine } from "./foreign-line";
import { FlatTops } from "./flat-tops";
import { orderLines, type OrderLine } from "./order-lines";

/** The harmonics that are told apart. */
export const HARMONIC_ORDERS = [2, 3, 4, 5, 6, 7] as const;

export interface Distortion {
  frequencyHz: number;
  /** Peak level of the tone, dBFS. */
  levelDbfs: number;
  seconds: number;
  /** From the second to the seventh, as far as the sample rate holds them. */
  harmonics: OrderLine[];
  third: OrderLine | null;
  /** Root of the sum of squares of the harmonics that are measurable; of all that is there when none is, so at most that. */
  thdPercent: number;
  thdMeasurable: boolean;
  /** The tops of the wave are cut off: this is the distortion of the input. */
  clipped: boolean;
  /** Another tone, or a buzz, beside this one: harmonics are then not of this tone alone; null for none. */
  foreign: ForeignLine | null;
}

/**
 * Harmonic distortion of a steady tone in one channel, by order tracking, re the fundamental (IEC 60268-3).
 * @param nearHz where the tone is sought, within a tenth
 * @returns null where there is no tone, or too little of it
 */
export function distortionOf(x: Samples, sampleRateHz: number, nearHz: number): Distortion | null {
  const found = orderLines(x, sampleRateHz, nearHz, HARMONIC_ORDERS);
  if (found === null) return null;
  const { lines, ...tone } = found;
  const tops = new FlatTops(sampleRateHz / tone.frequencyHz);
  tops.look(x);
  const measurable = lines.filter((line) => line.measurable);
  const thdPercent = Math.hypot(
    ...(measurable.length > 0 ? measurable : lines).map(({ percent }) => percent),
  );
  return {
    ...tone,
    harmonics: lines,
    third: lines.find(({ order }) => order === 3) ?? null,
    thdPercent,
    thdMeasurable: measurable.length > 0,
    clipped: tops.found,
    foreign: foreignLine(x, sampleRateHz, tone.frequencyHz, tone.levelDbfs),
  };
}
