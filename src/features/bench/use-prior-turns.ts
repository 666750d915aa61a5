import { useLiveQuery } from "dexie-react-hooks";
import { useMemo } from "react";
import { learnedTurns, type LearnedTurn } from "@/core/alignment/turn-guidance";
import { database } from "@/storage/database";
import type { JobView } from "../job/use-job-records";

/** Turns of an adjuster that moved the speed at a tape speed, from the latest earlier job that has any. */
export type PriorTurns = (adjusterId: string, speedCmPerS: number) => LearnedTurn[];

/** Readings and turns of one earlier job. */
export type PriorJob = Pick<JobView, "readings" | "adjustments">;

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

const NONE: PriorJob[] = [];

/** What earlier jobs on the same machine have taught about the adjusters of its speed. */
export function usePriorTurns(view: JobView): PriorTurns {
  const earlier = usePriorJobs(view);
  return useMemo(() => priorTurns(earlier), [earlier]);
}

function priorTurns(earlier: PriorJob[]): PriorTurns {
  return (adjusterId, speedCmPerS) => {
    for (const { readings, adjustments } of earlier) {
      const speeds = readings.filter(
        ({ quantity, context }) =>
          quantity === "speedError" && context.speedCmPerS === speedCmPerS && context.pitch === undefined,
      );
      const learned = learnedTurns(speeds, adjustments, adjusterId);
      if (learned.length > 0) return learned;
    }
    return [];
  };
}
