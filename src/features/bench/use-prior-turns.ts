import { useLiveQuery } from "dexie-react-hooks";
import { learnedTurns, type LearnedTurn } from "@/core/alignment/turn-guidance";
import { database } from "@/storage/database";
import type { JobView } from "../job/use-job-records";

/** What earlier jobs on the same machine have taught about an adjuster, the latest such job's turns. */
export function usePriorTurns({ job, machine }: JobView, adjusterId: string | undefined): LearnedTurn[] {
  return (
    useLiveQuery(async () => {
      if (!adjusterId) return [];
      const jobs = await database.jobs.where("machineId").equals(machine.id).toArray();
      const earlier = jobs
        .filter(({ id, createdAt }) => id !== job.id && createdAt < job.createdAt)
        .sort((a, b) => b.createdAt.localeCompare(a.createdAt));
      for (const { id } of earlier) {
        const readings = await database.readings.where("jobId").equals(id).toArray();
        const adjustments = await database.adjustments.where("jobId").equals(id).toArray();
        const speeds = readings.filter(({ quantity }) => quantity === "speedError");
        const learned = learnedTurns(speeds, adjustments, adjusterId);
        if (learned.length > 0) return learned;
      }
      return [];
    }, [job.id, job.createdAt, machine.id, adjusterId]) ?? NONE
  );
}

const NONE: LearnedTurn[] = [];
