import { limitFor, primaryFlutter } from "./limits";
import { atSpeed, speedsOf } from "./job-speeds";
import {
  inForce,
  type JobRecords,
  type Adjustment,
  type Machine,
  type Quantity,
  type Reading,
  type StationId,
} from "./records";
import { ROUTE, stationById, type Station } from "./stations";
import { verdictOf, type Verdict } from "./verdict";

/** How a station's piece of tape is drawn. */
export type StationState = "blank" | "found" | "settled" | "stale" | "failed";

/** The quantity that decides at a measuring station. */
export function decidingQuantity(station: StationId, machine: Machine): Quantity {
  return station === "speed" ? "speedError" : primaryFlutter(machine.flutterMeter);
}

/** The readings that decide at a station, oldest first; of one tape speed when the records are (`atSpeed`). */
export function readingsOf(records: JobRecords, station: StationId): Reading[] {
  const quantity = decidingQuantity(station, records.machine);
  return inForce(records.readings).filter((r) => r.station === station && r.quantity === quantity);
}

/** The verdict on a reading by its machine's limit; null where there is no limit. */
export function readingVerdict(reading: Reading, machine: Machine): Verdict | null {
  const limit = limitFor(machine, reading.quantity);
  return limit === null ? null : verdictOf(reading.value, reading.uncertainty, limit);
}

/** The adjustments that put the last reading of a station in doubt, oldest first. */
export function upsetBy(records: JobRecords, station: StationId): Adjustment[] {
  const last = readingsOf(records, station).at(-1);
  if (!last) return [];
  return inForce(records.adjustments).filter(
    (a) => a.at > last.at && a.turns !== 0 && stationById(a.station)?.upsets.includes(station),
  );
}

/** The state of a station; of one that measures, what the states at all the job's speeds add up to. */
export function stationState(records: JobRecords, station: Station): StationState {
  const { job } = records;
  if (station.kind === "sheet") return job.finishedAt === null ? "blank" : "settled";
  if (station.kind === "checklist") {
    const done = job.done[station.id]?.length ?? 0;
    return done === 0 ? "blank" : done < station.checks.length ? "found" : "settled";
  }
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
  const left = readings.findLast((r) => r.phase === "as left");
  if (!left) return "found";
  return readingVerdict(left, machine) === "fail" ? "failed" : "settled";
}

/** The speeds of the job, other than the one at hand, at which a measuring station is not settled. */
export function otherSpeedsToDo(records: JobRecords, station: Station): number[] {
  return speedsOf(records.job)
    .map(({ speedCmPerS }) => speedCmPerS)
    .filter((speed) => speed !== records.job.speedCmPerS)
    .filter((speed) => measuredState(atSpeed(records, speed), station) !== "settled");
}

/** Where the work is: the first station of the route that is not settled. */
export function presentStation(records: JobRecords): Station {
  return ROUTE.find((station) => stationState(records, station) !== "settled") ?? ROUTE[ROUTE.length - 1];
}

/** The stations whose readings an adjustment at this station has put, or will put, in doubt. */
export function toRepeat(records: JobRecords): Station[] {
  return ROUTE.filter((station) => stationState(records, station) === "stale");
}
