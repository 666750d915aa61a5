import { fixed, hertzText } from "@/core/text/number-text";
import type { ReductionNow } from "./reduction";
import { isHz, isSame, mapOf, worstOf, type MapPoint } from "./reduction-map";

/** A level that is off by less is not what noise reduction trips over. */
const LEVEL_SET_DB = 0.7;
/** A level error comes out of a noise reduction at most so many times as large. */
const MOST_TIMES = 3;
const CLEARLY_DB = 1;
/** No trimmer is off by so much. */
const NOT_RECORDED_DB = 15;
/** By how much of an error in front of it a noise reduction adds to it at most. */
const timesOf = (errorDb: number): number => (MOST_TIMES - 1) * Math.abs(errorDb);

/** What the map says, the likeliest first; none where all of it is within its limit. */
export function reductionCauses({ switchedOn, points, off, lacks }: ReductionNow, limitDb: number): string[] {
  if (lacks !== null || off === null || !switchedOn.includes("reduction")) return [];
  const channels = [...new Set(points.map(({ channel }) => channel))];
  const told = channels.map((channel) => {
    const of = (all: readonly MapPoint[]) => mapOf(all.filter((one) => one.channel === channel));
    const level = of(off).find((one) => one.level === -20 && isHz(one.frequencyHz, 400))?.errorDb ?? 0;
    const added = of(points).flatMap((one) => {
      const before = off.find((other) => isSame(one, other));
      return before ? [{ ...before, addedDb: one.errorDb - before.errorDb }] : [];
    });
    const most = added.toSorted((a, b) => Math.abs(b.addedDb) - Math.abs(a.addedDb)).at(0);
    return {
      channel,
      level,
      added,
      most: most?.addedDb ?? 0,
      worst: Math.abs(worstOf(of(points), limitDb)?.errorDb ?? 0),
    };
  });
  const bad = told.filter(({ worst }) => worst > limitDb);
  const byLevel = ({ level, most }: (typeof told)[number]) =>
    Math.abs(level) > LEVEL_SET_DB && Math.abs(most) < timesOf(level) + CLEARLY_DB / 2;
  /** What it adds is nowhere more than it makes of what was off in front of it at that tone. */
  const byResponse = ({ added }: (typeof told)[number]) =>
    added.every(
      ({ addedDb, errorDb }) =>
        Math.abs(addedDb) < CLEARLY_DB ||
        (Math.abs(errorDb) > LEVEL_SET_DB && Math.abs(addedDb) < timesOf(errorDb) + CLEARLY_DB / 2),
    );
  return bad.flatMap((one): string[] => {
    const { channel, level, most } = one;
    const name = channels.length > 1 ? `${channel}: ` : "";
    if (Math.abs(most) < CLEARLY_DB && Math.abs(level) <= LEVEL_SET_DB)
      return [
        `${name}it is as far off with noise reduction off: the record response, not the noise reduction.`,
      ];
    if (level < -NOT_RECORDED_DB)
      return [
        `${name}it comes back ${fixed(-level, 0)} dB down without noise reduction: that is no setting but a recording without bias. Watch a recording at the oscillator first.`,
      ];
    if (byLevel(one))
      return [
        `${name}a level error of ${fixed(level, 1, true)} dB goes in front of it: set record level for this tape, then look again.`,
      ];
    if (byResponse(one)) {
      const [off] = one.added.toSorted((a, b) => Math.abs(b.errorDb) - Math.abs(a.errorDb));
      return [
        `${name}without it ${hertzText(off.frequencyHz)} is off by ${fixed(off.errorDb, 1, true)} dB, and noise reduction makes more of that: set bias and record response for this tape, then look again.`,
      ];
    }
    return [
      `${name}level is right and noise reduction adds ${fixed(most, 1, true)} dB: its own circuit${bad.length < channels.length ? " on this channel" : ""}, its calibration or its supply.`,
    ];
  });
}
