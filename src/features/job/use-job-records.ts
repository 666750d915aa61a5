import { useLiveQuery } from "dexie-react-hooks";
import type { JobRecords } from "@/core/alignment/station-state";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { database } from "@/storage/database";

export type JobView = JobRecords & { tape: ReferenceTape };

/** A job with everything that belongs to it, kept current across tabs: undefined while loading, null if there is none. */
export function useJobRecords(jobId: string): JobView | null | undefined {
  return useLiveQuery(async () => {
    const job = await database.jobs.get(jobId);
    if (!job) return null;
    const [machine, tape, readings, adjustments] = await Promise.all([
      database.machines.get(job.machineId),
      database.tapes.get(job.tapeId),
      database.readings.where("jobId").equals(jobId).toArray(),
      database.adjustments.where("jobId").equals(jobId).toArray(),
    ]);
    return machine && tape ? { job, machine, tape, readings, adjustments } : null;
  }, [jobId]);
}

/** All jobs with their records, the last changed first. */
export function useFloor(): JobRecords[] | undefined {
  return useLiveQuery(async () => {
    const [jobs, machines, readings, adjustments] = await Promise.all([
      database.jobs.orderBy("updatedAt").reverse().toArray(),
      database.machines.toArray(),
      database.readings.toArray(),
      database.adjustments.toArray(),
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
          readings: readings.filter(({ jobId }) => jobId === job.id),
          adjustments: adjustments.filter(({ jobId }) => jobId === job.id),
        },
      ];
    });
  }, []);
}
