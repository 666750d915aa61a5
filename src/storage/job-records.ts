import type { Job } from "@/core/records/job";
import type { JobParts, JobRecords } from "@/core/records/job-records";
import type { Machine } from "@/core/records/machine";
import { database } from "./database";
import { goneMachine } from "./gone-records";

/** A job with its machine. */
export interface KnownJob {
  job: Job;
  machine: Machine;
}

/** Jobs with their machines, in the order that is given; where a machine was deleted, what stands for it. */
export async function withMachines(jobs: readonly Job[]): Promise<KnownJob[]> {
  const machines = await database.machines.bulkGet(jobs.map(({ machineId }) => machineId));
  return jobs.map((job, i) => ({
    job,
    machine: machines[i] ?? goneMachine(job.machineId, job.speedCmPerS),
  }));
}

/** What some jobs need of parts; of their readings nothing is read. */
export async function partsOf(known: readonly KnownJob[]): Promise<JobParts[]> {
  const ids = known.map(({ job }) => job.id);
  const parts = byJob(await database.neededParts.where("jobId").anyOf(ids).toArray());
  return known.map(({ job, machine }) => ({ job, machine, neededParts: parts.get(job.id) ?? [] }));
}

/** Everything that was written down of some jobs; of the others nothing is read. */
export async function recordsOf(known: readonly KnownJob[]): Promise<JobRecords[]> {
  const ids = known.map(({ job }) => job.id);
  const [blanks, readings, adjustments, neededParts, stripDown] = await Promise.all([
    database.blanks.toArray(),
    database.readings.where("jobId").anyOf(ids).toArray().then(byJob),
    database.adjustments.where("jobId").anyOf(ids).toArray().then(byJob),
    database.neededParts.where("jobId").anyOf(ids).toArray().then(byJob),
    database.stripDown.where("jobId").anyOf(ids).sortBy("place").then(byJob),
  ]);
  return known.map(({ job, machine }) => {
    const mine = readings.get(job.id) ?? [];
    const recordedOn = new Set([
      ...(job.blankTapes ?? []).map(({ id }) => id),
      ...mine.flatMap(({ context }) => context.recordingOn ?? []),
    ]);
    return {
      job,
      machine,
      blanks: blanks.filter(({ id }) => recordedOn.has(id)),
      readings: mine,
      adjustments: adjustments.get(job.id) ?? [],
      neededParts: neededParts.get(job.id) ?? [],
      stripDown: stripDown.get(job.id) ?? [],
    };
  });
}

function byJob<T extends { jobId: string }>(all: readonly T[]): Map<string, T[]> {
  const jobs = new Map<string, T[]>();
  for (const one of all) {
    const mine = jobs.get(one.jobId);
    if (mine) mine.push(one);
    else jobs.set(one.jobId, [one]);
  }
  return jobs;
}
