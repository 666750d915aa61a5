import { median } from "@/core/dsp/quantile";
import type { WatchTrack } from "@/core/measure/watch-log";

/** Something that went in the middle of a long run. */
export interface Went {
  what: "speed" | "level" | "flutter";
  /** Since the run began. */
  atSeconds: number;
}

/** What a long run came to. */
export interface LongRun {
  /** In the order in which they went. */
  went: Went[];
  /** So much of it nobody heard. */
  missedSeconds: number;
  /** So much of it there was a tone. */
  heardSeconds: number;
  /** Mean speed error of the first, the middle and the last tenth, percent; null where no tone was. */
  speeds: [start: number | null, middle: number | null, end: number | null];
}

/** What lasts for less is an event, not the end of something. */
const LASTS_SECONDS = 10;
/** What is usual is what stood in the first half-minute in which there was a tone. */
const BEGINNING_SECONDS = 30;
const FALLEN_DB = 3;
const PART = 0.1;

/**
 * When speed, flutter or level went in a long run, and for good or for at least ten seconds.
 * @param speedLimitPercent ±; what is beyond it has gone
 * @param flutterLimitPercent null for none
 */
export function longRunOf(
  { stepSeconds, speedPercent, flutterPercent, levelDb, missed }: WatchTrack,
  speedLimitPercent: number,
  flutterLimitPercent: number | null,
): LongRun {
  const steps = Math.max(1, Math.round(LASTS_SECONDS / stepSeconds));
  const heard = levelDb.map((level, i) => (speedPercent[i] === null ? null : level));
  const first = heard.filter((level) => level !== null).slice(0, Math.round(BEGINNING_SECONDS / stepSeconds));
  const usualDb = first.length > 0 ? median(first) : null;
  const since = (
    what: Went["what"],
    values: ReadonlyArray<number | null>,
    isGone: (value: number) => boolean,
  ): Went[] => {
    const at = firstFor(values, steps, isGone);
    return at === null ? [] : [{ what, atSeconds: at * stepSeconds }];
  };
  return {
    went: [
      ...since("speed", speedPercent, (value) => Math.abs(value) > speedLimitPercent),
      ...(flutterLimitPercent === null
        ? []
        : since("flutter", flutterPercent, (value) => value > flutterLimitPercent)),
      ...(usualDb === null ? [] : since("level", heard, (value) => value < usualDb - FALLEN_DB)),
    ].toSorted((a, b) => a.atSeconds - b.atSeconds),
    missedSeconds: missed.reduce((sum, { fromSeconds, toSeconds }) => sum + toSeconds - fromSeconds, 0),
    heardSeconds: stepSeconds * speedPercent.filter((value) => value !== null).length,
    speeds: [0, 0.5 - PART / 2, 1 - PART].map((from) => meanOf(speedPercent, from)) as LongRun["speeds"],
  };
}

/** The first step from which values were gone for so many steps that had any. */
function firstFor(
  values: ReadonlyArray<number | null>,
  steps: number,
  isGone: (value: number) => boolean,
): number | null {
  let began: number | null = null;
  let gone = 0;
  for (const [i, value] of values.entries()) {
    if (value === null) continue;
    if (!isGone(value)) {
      [began, gone] = [null, 0];
      continue;
    }
    began ??= i;
    if (++gone >= steps) return began;
  }
  return null;
}

function meanOf(values: ReadonlyArray<number | null>, from: number): number | null {
  const part = values
    .slice(Math.floor(from * values.length), Math.ceil((from + PART) * values.length))
    .filter((value) => value !== null);
  return part.length === 0 ? null : part.reduce((sum, value) => sum + value, 0) / part.length;
}
