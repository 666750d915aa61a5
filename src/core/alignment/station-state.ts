import { verdictOf, type Verdict } from "@/core/judging/verdict";
import { openLines } from "@/core/workshop/strip-down";
import type { TapeType } from "@/core/standards/tape-types";
import type { Adjustment } from "@/core/records/adjustment";
import { inForce, type JobRecords } from "@/core/records/job-records";
import { atSpeed, speedsOf } from "@/core/records/job-speeds";
import type { Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import type { Dimension, MeasuringStation, Station } from "@/core/stations/station";
import { moves } from "./moves";
import { limitFor, quantityOf, ROUTE, routeOf, stationOf } from "./registry";

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
  const { atLeast } = quantityOf(reading.quantity);
  return limit === null ? null : verdictOf(reading.value, reading.uncertainty, limit, atLeast);
}

/** What of a reading says which series of its station it belongs to. */
const PLACE: Record<Dimension, (context: Reading["context"]) => string | number | undefined> = {
  speed: ({ speedCmPerS }) => speedCmPerS,
  side: ({ side }) => side,
  channel: ({ channel }) => channel,
  head: ({ head }) => head,
  recordingOn: ({ recordingOn }) => recordingOn,
  switchedOn: ({ switchedOn = [] }) => switchedOn.toSorted().join("+"),
  control: ({ control }) => control,
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
    const known = series.get(key);
    if (known) known.push(reading);
    else series.set(key, [reading]);
  }
  return [...series.values()];
}

/** The adjustments that put the last reading of any series of a station in doubt, oldest first. */
export function upsetBy(records: JobRecords, station: MeasuringStation): Adjustment[] {
  const last = seriesOf(
    readingsOf(records, station).filter((reading) => !quantityOf(reading.quantity).unmoved),
  ).map((series) => series.at(-1)!);
  const typeOf = (id: string | undefined) => records.blanks?.find((blank) => blank.id === id)?.type ?? null;
  return inForce(records.adjustments).filter(
    (a) =>
      moves(a, station.id) &&
      last.some(
        (reading) =>
          a.at > reading.at && concerns(a, reading, records.machine, typeOf(reading.context.recordingOn)),
      ),
  );
}

/** Whether an adjuster acts on the channel, the direction and the type of tape that a reading is of. */
function concerns(
  { adjusterId }: Adjustment,
  { context, quantity }: Reading,
  machine: Machine,
  recordedOn: TapeType | null,
): boolean {
  const adjuster = machine.adjusters.find(({ id }) => id === adjusterId);
  if (!adjuster) return true;
  const { apartBy } = stationOf(quantity);
  const elsewhere = (by: "channel" | "side") => {
    const [acts, read] = [adjuster[by], context[by]];
    return (
      apartBy.includes(by) && acts !== undefined && read !== undefined && read !== "both" && acts !== read
    );
  };
  const otherType =
    adjuster.tapeType !== undefined && recordedOn !== null && adjuster.tapeType !== recordedOn;
  return !elsewhere("channel") && !elsewhere("side") && !otherType;
}

/** The tape speeds that a station has to be settled at; null where its readings are not kept apart by them. */
const speedsFor = ({ job }: JobRecords, { apartBy }: MeasuringStation): number[] | null =>
  apartBy.includes("speed") ? speedsOf(job).map(({ speedCmPerS }) => speedCmPerS) : null;

/** The state of a station; of one that measures, what the states at all the job's speeds and on its blank tapes add up to. */
export function stationState(records: JobRecords, station: Station): StationState {
  const { job } = records;
  switch (station.kind) {
    case "sheet":
      return job.finishedAt === null ? "blank" : "settled";
    case "checklist": {
      if (station.standing) return station.standing(records).state;
      const done = job.done[station.id]?.length ?? 0;
      const log = (station.takesApart && records.stripDown) || [];
      if (done === 0 && log.length === 0) return "blank";
      return done < station.checks.length || openLines(log).length > 0 ? "found" : "settled";
    }
    case "measure": {
      const blanks = blankStates(records, station);
      return blanks ? together(blanks) : stateAtAllSpeeds(records, station);
    }
  }
}

/** The state of a station for each blank tape that the job is set for; null where its readings are not kept apart by them. */
export function blankStates({ job, ...records }: JobRecords, station: Station): StationState[] | null {
  if (station.kind !== "measure" || !station.apartBy.includes("recordingOn")) return null;
  const { blankTapes = [] } = job;
  if (blankTapes.length === 0) return null;
  return blankTapes.map(({ id }) => {
    const readings = records.readings.filter(({ context }) => context.recordingOn === id);
    return stateAtAllSpeeds({ ...records, job, readings }, station);
  });
}

function stateAtAllSpeeds(records: JobRecords, station: MeasuringStation): StationState {
  const speeds = speedsFor(records, station);
  if (speeds === null) return measuredState(records, station);
  return together(speeds.map((speed) => measuredState(atSpeed(records, speed), station)));
}

/** What states at several speeds, or on several tapes, add up to. */
function together(states: readonly StationState[]): StationState {
  if (states.includes("failed")) return "failed";
  if (states.includes("stale")) return "stale";
  if (states.every((state) => state === states[0])) return states[0];
  // settled here and not yet begun there: work has begun
  return "found";
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
