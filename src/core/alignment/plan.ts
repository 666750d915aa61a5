import type { JobParts, JobRecords } from "@/core/records/job-records";
import type { Station } from "@/core/stations/station";
import { expectedOn, holdsUp, isOverdue, stateOf, type Part } from "@/core/workshop/part";
import { routeOf } from "./registry";
import { presentStation, stationState } from "./station-state";

/** A station that cannot go on, and the parts that it waits for. */
export interface Waits {
  station: Station;
  parts: Part[];
}

/** How far a job can go on today. */
export interface GoesOn {
  /** The first station that is not settled and does not wait; null where everything that is left waits. */
  station: Station | null;
  /** The stations that wait, in working order. */
  waits: Waits[];
  /** Of those before it, the ones that will put it in doubt once their parts are there. */
  upsetBy: Station[];
}

/** What of a job can go on: a station waits only for parts of its own, the sheet for everything before it. */
export function goesOn(records: JobRecords): GoesOn {
  const open = routeOf(records).filter((station) => stationState(records, station) !== "settled");
  const waits = open.flatMap((station): Waits[] => {
    const parts = (records.neededParts ?? []).filter((part) => part.station === station.id && holdsUp(part));
    return parts.length > 0 ? [{ station, parts }] : [];
  });
  const isHeld = (station: Station) =>
    station.kind === "sheet" ? waits.length > 0 : waits.some((one) => one.station.id === station.id);
  const station = open.find((one) => !isHeld(one)) ?? null;
  const before =
    station === null ? [] : waits.filter((one) => open.indexOf(one.station) < open.indexOf(station));
  return {
    station,
    waits,
    upsetBy: before
      .map((one) => one.station)
      .filter(({ upsets }) => station !== null && upsets.includes(station.id)),
  };
}

/** Where the work on a job is: what can go on, or, where all that is left waits, the first station of that. */
export const placeOfWork = (records: JobRecords, { station } = goesOn(records)): Station =>
  station ?? presentStation(records);

/** A part with the job that needs it. */
export interface PartOfJob {
  part: Part;
  records: JobParts;
}

/** What the parts of all jobs ask for. */
export interface PartsPlan {
  /** Expected before today, the longest ago first. */
  overdue: PartOfJob[];
  /** Expected today or later, the soonest first. */
  expected: PartOfJob[];
  /** To be ordered, or ordered anew since what came was wrong. */
  toOrder: PartOfJob[];
  /** Under way, and nobody knows until when. */
  undated: PartOfJob[];
  /** Here, and not yet in their machine. */
  toFit: PartOfJob[];
}

/** Sorts the parts of all jobs that are not finished by what is to be done about them. @param today as an ISO date */
export function partsPlan(jobs: readonly JobParts[], today: string): PartsPlan {
  const plan: PartsPlan = { overdue: [], expected: [], toOrder: [], undated: [], toFit: [] };
  for (const records of jobs.filter(({ job }) => job.finishedAt === null))
    for (const part of records.neededParts ?? []) placeOf(plan, part, today)?.push({ part, records });
  const byDay = (a: PartOfJob, b: PartOfJob) =>
    (expectedOn(a.part) ?? "").localeCompare(expectedOn(b.part) ?? "");
  return { ...plan, overdue: plan.overdue.toSorted(byDay), expected: plan.expected.toSorted(byDay) };
}

function placeOf(plan: PartsPlan, part: Part, today: string): PartOfJob[] | null {
  const state = stateOf(part);
  switch (state) {
    case "wanted":
    case "wrong":
      return plan.toOrder;
    case "ordered":
    case "away":
      if (expectedOn(part) === null) return plan.undated;
      return isOverdue(part, today) ? plan.overdue : plan.expected;
    case "fits":
    case "back":
      return plan.toFit;
    case "fitted":
      return null;
  }
}
