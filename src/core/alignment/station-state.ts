import { verdictOf, type Verdict } from "@/core/judging/verdict";
import type { Adjustment } from "@/core/records/adjustment";
import { inForce, type JobRecords } from "@/core/records/job-records";
import { atSpeed, speedsOf } from "@/core/records/job-speeds";
import type { Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import type { Dimension, MeasuringStation, Station } from "@/core/stations/station";
import { limitFor, ROUTE, routeOf, stationById, stationOf } from "./registry";

/** How a station's piece of tape is drawn. */
export type StationState = "blank" | "found" | "settled" | "stale" | "failed";

/** The readings that decide at a station, oldest first; of one tape speed when the records are (`atSpeed`). */
export function readingsOf(records: JobRecords, station: MeasuringStation): Reading[] {
  const quantities: readonly string[] = station.deciding(records.machine);
  return inForce(records.readings).filter((r) => r.station === station.id && quantities.includes(r.quantity));
}

/** The verdict on a reading by its machine's limit; null where there is no limit. */
export function readingVerdict(reading: Reading, machine: Machine): Verdict | null {
  const limit = limitFor(machine, reading.quantity);
  return limit === null ? null : verdictOf(reading.value, reading.uncertainty, limit);
}

/** What of a reading says which series of its station it belongs to. */
const PLACE: Record<Dimension, (context: Reading["context"]) => string | number | undefined> = {
  speed: ({ speedCmPerS }) => speedCmPerS,
  side: ({ side }) => side,
  channel: ({ channel }) => channel,
  head: ({ head }) => head,
  recordingOn: ({ recordingOn }) => recordingOn,
};

/**
 * Readings of one quantity that differ in nothing that their station keeps apart belong together, each such series with
 * its own as found and as left.
 */
export function seriesOf(readings: Reading[]): Reading[][] {
  const series = new Map<string, Reading[]>();
  for (const reading of readings) {
    const { quantity, context } = reading;
    const key = [quantity, ...stationOf(quantity).apartBy.map((by) => PLACE[by](context))].join(" ");
    series.set(key, [...(series.get(key) ?? []), reading]);
  }
  return [...series.values()];
}

/** The adjustments that put the last reading of any series of a station in doubt, oldest first. */
export function upsetBy(records: JobRecords, station: MeasuringStation): Adjustment[] {
  const last = seriesOf(readingsOf(records, station)).map((series) => series.at(-1)!);
  return inForce(records.adjustments).filter(
    (a) =>
      a.turns !== 0 &&
      stationById(a.station)?.upsets.includes(station.id) &&
      last.some((reading) => a.at > reading.at && concerns(a, reading, records.machine)),
  );
}

/** Whether an adjuster acts on the channel and the direction that a reading is of. */
function concerns({ adjusterId }: Adjustment, { context, quantity }: Reading, machine: Machine): boolean {
  const adjuster = machine.adjusters.find(({ id }) => id === adjusterId);
  if (!adjuster) return true;
  const { apartBy } = stationOf(quantity);
  const elsewhere = (by: "channel" | "side") => {
    const [acts, read] = [adjuster[by], context[by]];
    return (
      apartBy.includes(by) && acts !== undefined && read !== undefined && read !== "both" && acts !== read
    );
  };
  return !elsewhere("channel") && !elsewhere("side");
}

/** The tape speeds that a station has to be settled at; null where its readings are not kept apart by them. */
const speedsFor = ({ job }: JobRecords, { apartBy }: MeasuringStation): number[] | null =>
  apartBy.includes("speed") ? speedsOf(job).map(({ speedCmPerS }) => speedCmPerS) : null;

/** The state of a station; of one that measures, what the states at all the job's speeds add up to. */
export function stationState(records: JobRecords, station: Station): StationState {
  const { job } = records;
  switch (station.kind) {
    case "sheet":
      return job.finishedAt === null ? "blank" : "settled";
    case "checklist": {
      const done = job.done[station.id]?.length ?? 0;
      return done === 0 ? "blank" : done < station.checks.length ? "found" : "settled";
    }
    case "measure": {
      const speeds = speedsFor(records, station);
      if (speeds === null) return measuredState(records, station);
      const states = speeds.map((speed) => measuredState(atSpeed(records, speed), station));
      if (states.includes("failed")) return "failed";
      if (states.includes("stale")) return "stale";
      if (states.every((state) => state === states[0])) return states[0];
      // settled at one speed and not yet begun at another: work has begun
      return "found";
    }
  }
}

/** The state of a measuring station at the speed of the records (`atSpeed`). */
export function measuredState(records: JobRecords, station: MeasuringStation): StationState {
  const { machine } = records;
  const readings = readingsOf(records, station);
  if (readings.length === 0) return "blank";
  if (upsetBy(records, station).length > 0) return "stale";
  const left = seriesOf(readings).map((series) => series.findLast((r) => r.phase === "as left"));
  const verdicts = left.map((reading) => reading && readingVerdict(reading, machine));
  if (verdicts.includes("fail")) return "failed";
  return left.every(Boolean) && !verdicts.includes("cannot be told") ? "settled" : "found";
}

/** The speeds of the job, other than the one at hand, at which a measuring station is not settled. */
export const otherSpeedsToDo = (records: JobRecords, station: MeasuringStation): number[] =>
  (speedsFor(records, station) ?? [])
    .filter((speed) => speed !== records.job.speedCmPerS)
    .filter((speed) => measuredState(atSpeed(records, speed), station) !== "settled");

/** Where the work is: the first station of the route that is not settled. */
export function presentStation(records: JobRecords): Station {
  return (
    routeOf(records).find((station) => stationState(records, station) !== "settled") ??
    ROUTE[ROUTE.length - 1]
  );
}

/** The stations whose readings an adjustment at this station has put, or will put, in doubt. */
export function toRepeat(records: JobRecords): Station[] {
  return routeOf(records).filter((station) => stationState(records, station) === "stale");
}
