import type { HeardSchool } from "@/core/guidance/bias-answers";
import { biasErrorAt } from "@/core/guidance/bias-screw";
import { BIAS_OVER_TYPE_I_DB, TAPE_TYPES, type TapeType } from "@/core/standards/tape-types";
import { fixed } from "@/core/text/number-text";
import { errorOf, type BiasSide } from "./bias-sides";
import type { OnTheBench } from "./on-the-bench";

/** Nearer to right than this a screw is out; a tape of another type stands farther off. */
const FAR_DB = 2.4;
/** Two channels of one machine are out alike where the tape is the reason. */
const ALIKE_DB = 1.6;
const LIKE_TYPE_DB = 1.4;
/** One setting alone gives no more than this; to look at the tape is asked for all the same. */
const KNOWN_DB = 4.5;

/**
 * Both channels stand off alike, by about what another type of tape takes: whether the machine is out or another tape is in
 * it nobody can hear, so somebody has to look. Null where that is not so, or somebody has looked.
 */
export function tapeDoubt({ here, circumstances }: OnTheBench, sides: readonly BiasSide[]): string | null {
  const { job, blanks = [] } = here;
  const { recordingOn } = circumstances;
  const blank = blanks.find(({ id }) => id === recordingOn);
  const seen = job.blankTapes?.find(({ id }) => id === recordingOn)?.seen ?? false;
  if (!blank || blank.type === null || seen || sides.length < 2) return null;
  const errors = sides.flatMap(({ known }) => {
    const error = known && biasErrorAt("flatness", known, known.nowTurns);
    return error && error.uncertaintyDb < KNOWN_DB ? error.errorDb : [];
  });
  if (errors.length < sides.length) return null;
  const [least, most] = [Math.min(...errors), Math.max(...errors)];
  const mean = (least + most) / 2;
  if (most - least > ALIKE_DB || Math.abs(mean) < FAR_DB) return null;
  const own = BIAS_OVER_TYPE_I_DB[blank.type];
  const like = TAPE_TYPES.flatMap((type): TapeType[] => {
    const takes = BIAS_OVER_TYPE_I_DB[type];
    // a tape that takes more bias than it gets seems to get too little
    return own !== null &&
      takes !== null &&
      type !== blank.type &&
      Math.abs(own - takes - mean) < LIKE_TYPE_DB
      ? [type]
      : [];
  });
  return like.length === 0
    ? null
    : `Both channels stand ${fixed(Math.abs(mean), 1)} dB ${mean < 0 ? "too low" : "too high"} in bias, as with a tape of type ${like.join(" or ")} in the machine, or its switch set for another type. Look at both.`;
}

const APART_DB = 0.8;

/**
 * Flatness and over-bias would leave the screws far apart: flatness hears the record equaliser too. In a sentence; null where
 * they agree within what is known of them, or another school is chosen.
 */
export function schoolsApart(school: HeardSchool, sides: readonly BiasSide[]): string | null {
  if (school !== "flatness") return null;
  const apart = sides.flatMap((side) => {
    const [flat, over] = [errorOf("flatness", side), errorOf("over-bias", side)];
    if (!flat || !over) return [];
    const db = flat.errorDb - over.errorDb;
    return Math.abs(db) > APART_DB + Math.hypot(flat.uncertaintyDb, over.uncertaintyDb)
      ? [`${fixed(Math.abs(db), 1)} dB ${db > 0 ? "higher" : "lower"} on the ${side.channel} channel`]
      : [];
  });
  return apart.length === 0
    ? null
    : `Over-bias would leave bias ${apart.join(" and ")}: the record equaliser stands off, which flatness takes for bias. Set bias by over-bias first, then the equaliser.`;
}
