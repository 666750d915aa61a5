import { inForce } from "@/core/records/job-records";
import type { Job } from "@/core/records/job";
import type { Circumstances, Reading } from "@/core/records/reading";
import { fixed } from "@/core/text/number-text";
import { erase, erasedNow } from "./erase";
import type { OnTheBench } from "./on-the-bench";

/** What was logged of erasing beside what is heard, the worse channel of each, dB; null where nothing was. */
export interface ErasedBefore {
  /** On the job's other tapes, the same way. */
  others: ReadonlyArray<{ name: string; db: number }>;
  /** On this tape, the same way. */
  beforeDb: number | null;
  /** On this tape, the other way. */
  otherWayDb: number | null;
}

/** What the records tell of erasing on a tape in a direction, beside what is heard. */
export function erasedBefore(
  readings: readonly Reading[],
  blanks: NonNullable<Job["blankTapes"]>,
  { recordingOn, side }: Pick<Circumstances, "recordingOn" | "side">,
  channels: 1 | 2,
  speedCmPerS: number,
): ErasedBefore {
  // at another speed a tape is erased by another depth
  const depths = inForce([...readings]).filter(
    ({ quantity, context }) => quantity === "erase.depth" && context.speedCmPerS === speedCmPerS,
  );
  const logged = (tape: string | undefined, isWay: (other: Circumstances["side"]) => boolean) => {
    const there = depths.filter(({ context }) => context.recordingOn === tape && isWay(context.side));
    return there.length > 0 ? Math.min(...there.slice(-channels).map(({ value }) => value)) : null;
  };
  const sameWay = (other: Circumstances["side"]) => other === side;
  return {
    others: blanks.flatMap(({ id, name }) => {
      const db = id === recordingOn ? null : logged(id, sameWay);
      return db === null ? [] : [{ name, db }];
    }),
    beforeDb: logged(recordingOn, sameWay),
    otherWayDb:
      side === undefined ? null : logged(recordingOn, (other) => other !== undefined && other !== side),
  };
}

/** What the pass that is heard means beside what was logged; a depth that noise hides accuses nothing. */
export function eraseCausesNow(bench: OnTheBench): string[] {
  const { records, circumstances } = bench;
  const { machine, job, readings } = records;
  return eraseCauses(
    erasedNow(bench).channels.flatMap(({ channel, depth }) =>
      depth && !depth.hidden ? [{ channel, db: depth.db }] : [],
    ),
    erasedBefore(readings, job.blankTapes ?? [], circumstances, machine.channels, job.speedCmPerS),
    erase.limitOf(machine, "erase.depth") ?? 0,
  );
}

/** What a pattern of erase depths usually means, the likeliest first; none where nothing is short. */
export function eraseCauses(
  channels: ReadonlyArray<{ channel: string; db: number }>,
  { others, beforeDb, otherWayDb }: ErasedBefore,
  leastDb: number,
): string[] {
  const short = channels.filter(({ db }) => db < leastDb);
  if (short.length === 0) return [];
  const [one, other] = channels;
  const apart = other ? Math.abs(one.db - other.db) : 0;
  // where this tape was erased well before, the others tell nothing: the machine has changed since
  const hasChanged = beforeDb !== null && beforeDb >= leastDb;
  const better = hasChanged ? [] : others.filter(({ db }) => db >= leastDb);
  const oneWay = otherWayDb !== null && otherWayDb >= leastDb;
  return [
    ...(apart > APART_DB
      ? [
          `The ${one.db < other.db ? one.channel : other.channel} channel is ${fixed(apart, 0)} dB worse than the other: the erase head is dirty, too low or too high, or worn on that track.`,
        ]
      : []),
    ...(apart <= APART_DB && oneWay
      ? [
          `The other way this tape is erased by ${fixed(otherWayDb, 0)} dB, so the oscillator gives enough: look at the erase head of this direction, its dirt, its height, and the contact or switch that feeds it.`,
        ]
      : []),
    ...(better.length > 0 && !oneWay
      ? [
          `On ${better.map(({ name }) => name).join(", ")} it is deep enough: this tape is too strong for this machine.`,
        ]
      : []),
    ...(apart <= APART_DB && better.length === 0 && !oneWay
      ? [
          `${hasChanged ? `It was ${fixed(beforeDb, 0)} dB before on this tape. ` : ""}Both channels alike: look at the oscillator's amplitude first, with a meter at the erase head, then clean the erase head, then its contacts.`,
        ]
      : []),
  ];
}
const APART_DB = 8;

/** A second pass that takes off less than this takes off nothing; a whole one takes off at least so much. */
const NOTHING_DB = 3;
const WHOLE_DB = 12;

/**
 * What a second pass over the same place tells of a depth that is short, channel by channel.
 * @param once, @param twice as logged, dB; only channels that have both
 */
export function secondPassCauses(
  channels: ReadonlyArray<{ channel: string; once: number; twice: number }>,
  leastDb: number,
): string[] {
  const short = channels.filter(({ once }) => once < leastDb);
  const which = (these: typeof short) =>
    these.length > 1 ? "both channels" : `the ${these[0].channel} channel`;
  const stays = short.filter(({ once, twice }) => twice - once < NOTHING_DB);
  const goes = short.filter(({ once, twice }) => twice - once > WHOLE_DB);
  return [
    ...(stays.length > 0
      ? [
          `A second pass takes nothing more off on ${which(stays)}: what is left lies where the erase gap does not reach, or it comes in anew. Look at the erase head's height, and close the input.`,
        ]
      : []),
    ...(goes.length > 0
      ? [
          `A second pass takes it down as far again on ${which(goes)}: the erase head sits right, and is too weak or dirty.`,
        ]
      : []),
  ];
}
