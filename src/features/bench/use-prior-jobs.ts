import { useLiveQuery } from "dexie-react-hooks";
import type { PriorJob } from "@/core/stations/on-the-bench";
import { database } from "@/storage/database";
import type { JobView } from "../job/use-job-records";

const NONE: PriorJob[] = [];

/** What was logged in earlier jobs on the same machine, the latest first. */
export function usePriorJobs({ job, machine }: JobView): PriorJob[] {
  const earlier = useLiveQuery(async () => {
    const jobs = await database.jobs.where("machineId").equals(machine.id).toArray();
    const before = jobs
      .filter(({ id, createdAt }) => id !== job.id && createdAt < job.createdAt)
      .sort((a, b) => b.createdAt.localeCompare(a.createdAt));
    return Promise.all(
      before.map(async ({ id }) => ({
        readings: await database.readings.where("jobId").equals(id).toArray(),
        adjustments: await database.adjustments.where("jobId").equals(id).toArray(),
      })),
    );
  }, [job.id, job.createdAt, machine.id]);
  return earlier ?? NONE;
}
