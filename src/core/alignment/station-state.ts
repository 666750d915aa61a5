import { azimuthByPhase, limitFor, primaryFlutter } from "./limits";
import { atSpeed, speedsOf } from "./job-speeds";
import {
  inForce,
  type JobRecords,
  type Adjustment,
  type Machine,
  type Reading,
  type StationId,
} from "./records";
import type { Quantity } from "./quantities";
import { ROUTE, routeOf, stationById, type Station } from "./stations";
import { verdictOf, type Verdict } from "./verdict";

/** How a station's piece of tape is drawn. */
export type StationState = "blank" | "found" | "settled" | "stale" | "failed";

/** The quantities that decide at a measuring station, first the one that is shown large. */
export function decidingQuantities(station: StationId, machine: Machine): Quantity[] {
  switch (station) {
    case "speed":
      return ["speedError"];
    case "azimuth":
      return [azimuthByPhase(machine) ? "azimuth.phase" : "azimuth.belowPeak"];
    case "level":
      return machine.channels !== 1 ? ["level.error", "level.balance"] : ["level.error"];
    case "response":
      return ["response.worst"];
    default:
      return [primaryFlutter(machine.flutterMeter)];
  }
}

export const decidingQuantity = (station: StationId, machine: Machine): Quantity =>
  decidingQuantities(station, machine)[0];

/** The readings that decide at a station, oldest first; of one tape speed when the records are (`atSpeed`). */
export function readingsOf(records: JobRecords, station: StationId): Reading[] {
  const quantities = decidingQuantities(station, records.machine);
  return inForce(records.readings).filter((r) => r.station === station && quantities.includes(r.quantity));
}

/** The verdict on a reading by its machine's limit; null where there is no limit. */
export function readingVerdict(reading: Reading, machine: Machine): Verdict | null {
  const limit = limitFor(machine, reading.quantity);
  return limit === null ? null : verdictOf(reading.value, reading.uncertainty, limit);
}

/**
 * Readings of one quantity, channel, direction and head belong together, each such series with its own as found and as
 * left; speed and flutter are one series each, whatever channel or side they were read from.
 */
export function seriesOf(readings: Reading[]): Reading[][] {
  const key = ({ station, quantity, context: { channel, side, head } }: Reading) =>
    station === "speed" || station === "flutter" ? "" : [quantity, channel, side, head].join(" ");
  const series = new Map<string, Reading[]>();
  for (const reading of readings) series.set(key(reading), [...(series.get(key(reading)) ?? []), reading]);
  return [...series.values()];
}

/** The adjustments that put the last reading of any series of a station in doubt, oldest first. */
export function upsetBy(records: JobRecords, station: StationId): Adjustment[] {
  const last = seriesOf(readingsOf(records, station)).map((series) => series.at(-1)!);
  return inForce(records.adjustments).filter(
    (a) =>
      a.turns !== 0 &&
      stationById(a.station)?.upsets.includes(station) &&
      last.some((reading) => a.at > reading.at && concerns(a, reading, records.machine)),
  );
}

/** Whether an adjuster acts on the channel and the direction that a reading is of. */
function concerns(
  { adjusterId, station }: Adjustment,
  { context, station: read }: Reading,
  machine: Machine,
): boolean {
  const adjuster = machine.adjusters.find(({ id }) => id === adjusterId);
  if (!adjuster || (station === "speed" && read === "speed")) return true;
  const apart = (one: string | undefined, other: string | undefined) =>
    one !== undefined && other !== undefined && other !== "both" && one !== other;
  return !apart(adjuster.channel, context.channel) && !apart(adjuster.side, context.side);
}

/** The state of a station; of one that measures, what the states at all the job's speeds add up to. */
export function stationState(records: JobRecords, station: Station): StationState {
  const { job } = records;
  if (station.kind === "sheet") return job.finishedAt === null ? "blank" : "settled";
  if (station.kind === "checklist") {
    const done = job.done[station.id]?.length ?? 0;
    return done === 0 ? "blank" : done < station.checks.length ? "found" : "settled";
  }
  // azimuth is one screw for every speed: it is set at one of them
  if (station.id === "azimuth") return measuredState(records, station);
  const states = speedsOf(job).map(({ speedCmPerS }) =>
    measuredState(atSpeed(records, speedCmPerS), station),
  );
  if (states.includes("failed")) return "failed";
  if (states.includes("stale")) return "stale";
  if (states.every((state) => state === states[0])) return states[0];
  // settled at one speed and not yet begun at another: work has begun
  return "found";
}

/** The state of a measuring station at the speed of the records (`atSpeed`). */
export function measuredState(records: JobRecords, station: Station): StationState {
  const { machine } = records;
  const readings = readingsOf(records, station.id);
  if (readings.length === 0) return "blank";
  if (upsetBy(records, station.id).length > 0) return "stale";
  const left = seriesOf(readings).map((series) => series.findLast((r) => r.phase === "as left"));
  if (left.some((reading) => reading && readingVerdict(reading, machine) === "fail")) return "failed";
  return left.every(Boolean) ? "settled" : "found";
}

/** The speeds of the job, other than the one at hand, at which a measuring station is not settled. */
export function otherSpeedsToDo(records: JobRecords, station: Station): number[] {
  if (station.id === "azimuth") return [];
  return speedsOf(records.job)
    .map(({ speedCmPerS }) => speedCmPerS)
    .filter((speed) => speed !== records.job.speedCmPerS)
    .filter((speed) => measuredState(atSpeed(records, speed), station) !== "settled");
}

/** Where the work is: the first station of the route that is not settled. */
export function presentStation(records: JobRecords): Station {
  return (
    routeOf(records.job).find((station) => stationState(records, station) !== "settled") ??
    ROUTE[ROUTE.length - 1]
  );
}

/** The stations whose readings an adjustment at this station has put, or will put, in doubt. */
export function toRepeat(records: JobRecords): Station[] {
  return routeOf(records.job).filter((station) => stationState(records, station) === "stale");
}
