import { useLiveQuery } from "dexie-react-hooks";
import { speedsOf } from "@/core/records/job-speeds";
import type { Job } from "@/core/records/job";
import type { JobRecords } from "@/core/records/job-records";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { blanksOf } from "@/storage/blanks";
import { database } from "@/storage/database";

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
    return machine && tape
      ? { job, machine, tape, speeds, tapesUsed, blanks, readings, adjustments, neededParts, stripDown }
      : null;
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

/** All jobs with their records, the last changed first. */
export function useFloor(): JobRecords[] | undefined {
  return useLiveQuery(async () => {
    const [jobs, machines, blanks, readings, adjustments, neededParts, stripDown] = await Promise.all([
      database.jobs.orderBy("updatedAt").reverse().toArray(),
      database.machines.toArray(),
      database.blanks.toArray(),
      database.readings.toArray(),
      database.adjustments.toArray(),
      database.neededParts.toArray(),
      database.stripDown.toArray(),
    ]);
    const unfinishedFirst = [
      ...jobs.filter((job) => !job.finishedAt),
      ...jobs.filter((job) => job.finishedAt),
    ];
    return unfinishedFirst.flatMap((job) => {
      const machine = machines.find(({ id }) => id === job.machineId);
      if (!machine) return [];
      return [
        {
          job,
          machine,
          blanks: blanks.filter(({ id }) => job.blankTapes?.some((one) => one.id === id)),
          readings: readings.filter(({ jobId }) => jobId === job.id),
          adjustments: adjustments.filter(({ jobId }) => jobId === job.id),
          neededParts: neededParts.filter(({ jobId }) => jobId === job.id),
          stripDown: stripDown.filter(({ jobId }) => jobId === job.id),
        },
      ];
    });
  }, []);
}
