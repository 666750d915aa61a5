import { useLiveQuery } from "dexie-react-hooks";
import type { JobParts, JobRecords } from "@/core/records/job-records";
import { partsOf, recordsOf, type KnownJob } from "@/storage/job-records";
import { knownJobs } from "../job/use-job-records";
import { nextStep, type NextStep } from "./next-step";

/** What the floor shows. Of most jobs nothing but their names is read: the rest of a row is, once somebody scrolls to it. */
export interface FloorJobs {
  /** Those that are worked at, the last changed first, and then those that are finished. */
  jobs: KnownJob[];
  /** The records of the first that are worked at, by their ids: they stand at once. */
  first: Map<string, JobRecords>;
  /** What can be done now. */
  steps: NextStep[];
  /** What those that are worked at need of parts. */
  parts: JobParts[];
}

/** As many rows as a page shows. */
const READ_AT_ONCE = 4;
const MOST_STEPS = 3;

/** Every job; a change of one that was not read does not have the others read again. */
export function useFloor(): FloorJobs | undefined {
  return useLiveQuery(async () => {
    const jobs = await knownJobs();
    const open = jobs.filter(({ job }) => job.finishedAt === null);
    const [first, parts] = await Promise.all([recordsOf(open.slice(0, READ_AT_ONCE)), partsOf(open)]);
    const steps = stepsOf(first);
    for (let at = READ_AT_ONCE; steps.length < MOST_STEPS && at < open.length; at += READ_AT_ONCE)
      steps.push(...stepsOf(await recordsOf(open.slice(at, at + READ_AT_ONCE))));
    return {
      jobs,
      first: new Map(first.map((records) => [records.job.id, records])),
      steps: steps.slice(0, MOST_STEPS),
      parts,
    };
  }, []);
}

const stepsOf = (jobs: readonly JobRecords[]): NextStep[] =>
  jobs.flatMap((records) => nextStep(records) ?? []);
