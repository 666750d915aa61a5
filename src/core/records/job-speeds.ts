import type { Adjuster, Machine } from "./machine";
import type { Job } from "./job";
import type { JobRecords } from "./job-records";

export interface JobSpeed {
  speedCmPerS: number;
  tapeId: string;
}

/** Every tape speed of a job with its reference tape, the slowest first. */
export function speedsOf({ speedCmPerS, tapeId, otherSpeeds = [] }: Job): JobSpeed[] {
  return [{ speedCmPerS, tapeId }, ...otherSpeeds].sort((a, b) => a.speedCmPerS - b.speedCmPerS);
}

/** What of a job changes when work goes on at another speed, which is added to it where it is new. */
export function workAt(job: Job, speed: JobSpeed): Pick<Job, "speedCmPerS" | "tapeId" | "otherSpeeds"> {
  const otherSpeeds = speedsOf(job).filter(({ speedCmPerS }) => speedCmPerS !== speed.speedCmPerS);
  return { ...speed, otherSpeeds };
}

/** What of a job changes when the speed at hand is left out of it. Null when it is the only one. */
export function withoutSpeed(job: Job): Pick<Job, "speedCmPerS" | "tapeId" | "otherSpeeds"> | null {
  const [next, ...rest] = job.otherSpeeds ?? [];
  return next ? { ...next, otherSpeeds: rest } : null;
}

/** What is turned to set the speed, in the machine's order. */
export const speedAdjusters = ({ adjusters }: Machine): Adjuster[] =>
  adjusters.filter(({ sets, kind }) => sets === "speed" && kind === "turn");

/** Which of them an adjuster is, from 0; −1 for one that does not set the speed. */
export const speedAdjusterIndex = (machine: Machine, adjusterId: string | undefined): number =>
  speedAdjusters(machine).findIndex(({ id }) => id === adjusterId);

/** Whether an adjuster is said to act at a tape speed. */
export const actsAt = ({ speedsCmPerS }: Adjuster, speedCmPerS: number): boolean =>
  speedsCmPerS === undefined || speedsCmPerS.includes(speedCmPerS);

/**
 * The records that count at one tape speed: its readings with the pitch control at its centre, and what was turned that
 * acts at it. An adjuster that is not known any more is taken to act at every speed.
 */
export function atSpeed<T extends JobRecords>(records: T, speedCmPerS = records.job.speedCmPerS): T {
  const { job, machine, readings, adjustments } = records;
  const adjuster = (id: string) => machine.adjusters.find((a) => a.id === id);
  return {
    ...records,
    job: job.speedCmPerS === speedCmPerS ? job : { ...job, ...chosen(job, speedCmPerS) },
    readings: readings.filter((r) => r.context.speedCmPerS === speedCmPerS && r.context.pitch === undefined),
    adjustments: adjustments.filter(({ adjusterId }) => {
      const found = adjuster(adjusterId);
      return !found || actsAt(found, speedCmPerS);
    }),
  };
}

function chosen(job: Job, speedCmPerS: number) {
  const speed = speedsOf(job).find((s) => s.speedCmPerS === speedCmPerS);
  return speed ? workAt(job, speed) : {};
}
