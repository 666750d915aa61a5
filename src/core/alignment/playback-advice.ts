import { limitFor } from "./limits";
import { guidanceScale, setBy, shows, taught } from "./playback-turns";
import type { PlaybackNumbers } from "./playback-numbers";
import { unitOf, type Quantity } from "./quantities";
import { inForce, type Adjuster, type JobRecords, type StationId } from "./records";
import { adviseTurn, type LearnedTurn, type TurnAdvice } from "./turn-guidance";

/** The number that an adjuster is to bring to nought. */
export interface ToSet {
  value: number | null;
  uncertainty: number;
  settled: boolean;
}

/** Within this share of the limit there is nothing more to gain by turning. */
const GOOD_ENOUGH_SHARE = 0.2;
const SMALLEST_GOOD_ENOUGH = { "°": 3, dB: 0.12, "%": 0.04, "′": 0.1, dBFS: 0.1 };
const USUAL_LIMIT_DB = 1;

/** What is known of the level of both channels decides what the level trimmers are set by. */
export function quantityToSet(stationId: StationId, numbers: PlaybackNumbers | null): Quantity {
  const channels = numbers?.level?.numbers.channels;
  return setBy(stationId, channels?.every(({ errorDb }) => errorDb !== null) ?? true);
}

/** The number of an adjuster as it stands now, or as it was logged last. */
export function toSet(
  { readings }: Pick<JobRecords, "readings">,
  stationId: StationId,
  adjuster: Adjuster,
  numbers: PlaybackNumbers | null,
): ToSet {
  const live = numbers && liveNumber(stationId, adjuster, numbers);
  if (live) return live;
  const quantity = quantityToSet(stationId, numbers);
  const last = inForce(readings).findLast((r) => r.quantity === quantity && shows(adjuster)(r));
  return { value: last?.value ?? null, uncertainty: last?.uncertainty ?? 0, settled: true };
}

function liveNumber(
  stationId: StationId,
  { channel }: Adjuster,
  { now, level, response }: PlaybackNumbers,
): ToSet | null {
  const own = <C extends { channel: string }>(channels: C[]) =>
    channels.find((one) => one.channel === channel) ?? channels.at(0);
  if (stationId === "azimuth")
    return (
      now.phase && {
        value: now.phase.degrees,
        uncertainty: now.phase.counted ? now.phase.uncertaintyDegrees : 0,
        settled: now.phase.settled,
      }
    );
  if (stationId === "level") {
    const one = level && own(level.numbers.channels);
    const value = one?.errorDb ?? level?.numbers.balanceDb;
    if (!level || !one || value == null) return null;
    const settled = level.tone.fresh && (now.playing?.index !== level.tone.index || now.playing.settled);
    return { value, uncertainty: one.uncertaintyDb, settled };
  }
  const one = own(response.channels);
  const treble = one?.judged.treble;
  return one && treble
    ? { value: treble.levelDb, uncertainty: treble.uncertaintyDb, settled: one.trebleFresh }
    : null;
}

/**
 * How far to turn an adjuster of a playback station.
 * @param before what earlier jobs on the machine have taught of it, in units of guidance (`taught`)
 */
export function advisePlayback(
  records: JobRecords,
  adjuster: Adjuster,
  quantity: Quantity,
  { value, uncertainty, settled }: ToSet,
  before: LearnedTurn[] = [],
): TurnAdvice {
  if (value === null) return { kind: "wait" };
  const limit =
    limitFor(records.machine, quantity) ?? limitFor(records.machine, "response.worst") ?? USUAL_LIMIT_DB;
  const scale = guidanceScale(quantity);
  const goodEnough = Math.max(
    SMALLEST_GOOD_ENOUGH[unitOf(quantity)],
    GOOD_ENOUGH_SHARE * limit,
    // a restless phase is not chased
    quantity === "azimuth.phase" ? Math.min(0.5 * limit, uncertainty) : 0,
  );
  const learned = taught(records, adjuster, quantity);
  return adviseTurn(learned, value / scale, goodEnough / scale, settled, before);
}
