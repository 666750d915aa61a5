import { quantileInPlace } from "@/core/dsp/quantile";
import { meanLevelDb } from "@/core/measure/mean-level";
import type { TonePair } from "@/core/measure/tone-pair";

/** A tone that falls by this much has ended; turning a screw does not take it so low so soon. */
const ENDED_DB = 15;
/** Level of a tone is what so many of its frames stay below. */
const LOUDER_SHARE = 0.9;

/** Of each tenth of a second, whether the tone was there. */
export function tonePresent(tone: TonePair): boolean[] {
  const levels = levelTogether(tone);
  // that a tone has ended is known some seconds late: most of what is looked at may be silence by then
  const usual = quantileInPlace(levels.slice(), LOUDER_SHARE);
  return Array.from(levels, (level) => level > usual - ENDED_DB);
}

/** Level of the channels together in each tenth of a second, dBFS. */
export const levelTogether = ({ channels }: TonePair): Float64Array =>
  channels[0].track.map((_, i) => meanLevelDb(channels.map(({ track }) => track[i])));
