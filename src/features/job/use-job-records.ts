import { useLiveQuery } from "dexie-react-hooks";
import { speedsOf } from "@/core/records/job-speeds";
import type { Job } from "@/core/records/job";
import type { JobRecords } from "@/core/records/job-records";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { blanksOf } from "@/storage/blanks";
import { database } from "@/storage/database";
import { goneMachine, goneTape } from "@/storage/gone-records";
import { recordsOf, withMachines, type KnownJob } from "@/storage/job-records";

export interface JobView extends JobRecords {
  /** Of the speed that is worked at. */
  tape: ReferenceTape;
  /** Every speed of the job with its tape, as far as that is in the library. */
  speeds: Array<{ speedCmPerS: number; tape: ReferenceTape }>;
  /** The tapes that its readings were taken with, as far as they are in the library. */
  tapesUsed: ReferenceTape[];
}

/** A job with everything that belongs to it, kept current across tabs: undefined while loading, null if there is none. */
export function useJobRecords(jobId: string): JobView | null | undefined {
  return useLiveQuery(async () => {
    const job = await database.jobs.get(jobId);
    if (!job) return null;
    const [machine, speeds, readings, adjustments, neededParts, stripDown] = await Promise.all([
      database.machines.get(job.machineId),
      tapesOf(job),
      database.readings.where("jobId").equals(jobId).toArray(),
      database.adjustments.where("jobId").equals(jobId).toArray(),
      database.neededParts.where("jobId").equals(jobId).toArray(),
      database.stripDown.where("jobId").equals(jobId).sortBy("place"),
    ]);
    const used = await database.tapes.bulkGet([...new Set(readings.map(({ context }) => context.tapeId))]);
    const tapesUsed = used.filter((one) => one !== undefined);
    const tape = speeds.find(({ speedCmPerS }) => speedCmPerS === job.speedCmPerS)?.tape;
    const blanks = await blanksOf(job, readings);
    return {
      job,
      machine: machine ?? goneMachine(job.machineId, job.speedCmPerS),
      tape: tape ?? goneTape(job.tapeId, job.speedCmPerS),
      speeds,
      tapesUsed,
      blanks,
      readings,
      adjustments,
      neededParts,
      stripDown,
    };
  }, [jobId]);
}

async function tapesOf(job: Job): Promise<JobView["speeds"]> {
  const speeds = speedsOf(job);
  const tapes = await database.tapes.bulkGet(speeds.map(({ tapeId }) => tapeId));
  return speeds.flatMap(({ speedCmPerS }, i) => {
    const tape = tapes[i];
    return tape ? [{ speedCmPerS, tape }] : [];
  });
}

/** Every job with its machine, those that are worked at first, the last changed first. */
export const useKnownJobs = (): KnownJob[] | undefined => useLiveQuery(knownJobs, []);

/** The records of one job whose machine is known; undefined while they are read, or are not wanted. */
export function useRecordsOf({ job, machine }: KnownJob, wanted: boolean): JobRecords | undefined {
  return useLiveQuery(
    async () => (wanted ? (await recordsOf([{ job, machine }]))[0] : undefined),
    [job, machine, wanted],
  );
}

/** The same, read once. */
export async function knownJobs(): Promise<KnownJob[]> {
  const known = await withMachines(await database.jobs.orderBy("updatedAt").reverse().toArray());
  return [
    ...known.filter(({ job }) => job.finishedAt === null),
    ...known.filter(({ job }) => job.finishedAt !== null),
  ];
}
