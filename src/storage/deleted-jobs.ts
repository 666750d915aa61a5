import type { Adjustment } from "@/core/records/adjustment";
import type { Job } from "@/core/records/job";
import type { Reading } from "@/core/records/reading";
import type { PartRun, Watch } from "@/core/records/runs";
import { forgetClock } from "./clock-set-back";
import type { Part } from "@/core/workshop/part";
import type { StripEntry } from "@/core/workshop/strip-entry";
import { database, type Draft, type KeptPicture, type Recording } from "./database";

/** A job that was deleted, with all that was its own, as it is kept for a while. */
interface DeletedJob {
  job: Job;
  readings: Reading[];
  adjustments: Adjustment[];
  runs: PartRun[];
  watches: Watch[];
  recordings: Recording[];
  /** None in a job that was deleted before there were any. */
  neededParts?: Part[];
  stripDown?: StripEntry[];
  pictures?: KeptPicture[];
  drafts: Draft[];
}

/** Of the drafts that are deleted jobs. */
export const PREFIX_OF_DELETED = "deleted-job-";
const KEPT_MS = 24 * 60 * 60 * 1000;
/** Tables whose records belong to one job each. */
export const OWN = [
  database.readings,
  database.adjustments,
  database.runs,
  database.watches,
  database.recordings,
  database.neededParts,
  database.stripDown,
  database.pictures,
] as const;
const TABLES = [database.jobs, ...OWN, database.drafts, database.flags];

/** Takes a job out with all that is its own: for a day it can be brought back. Machine and tapes stay. */
export async function deleteJob(id: string): Promise<void> {
  await database.transaction("rw", TABLES, async () => {
    const job = await database.jobs.get(id);
    if (!job) return;
    const value: DeletedJob = {
      job,
      readings: await database.readings.where("jobId").equals(id).toArray(),
      adjustments: await database.adjustments.where("jobId").equals(id).toArray(),
      runs: await database.runs.where("jobId").equals(id).toArray(),
      watches: await database.watches.where("jobId").equals(id).toArray(),
      recordings: await database.recordings.where("jobId").equals(id).toArray(),
      neededParts: await database.neededParts.where("jobId").equals(id).toArray(),
      stripDown: await database.stripDown.where("jobId").equals(id).toArray(),
      pictures: await database.pictures.where("jobId").equals(id).toArray(),
      drafts: [],
    };
    const drafts = await database.drafts.filter((draft) => isOf(draft, id)).toArray();
    for (const table of OWN) await table.where("jobId").equals(id).delete();
    await database.drafts.bulkDelete(drafts.map((draft) => draft.id));
    await database.jobs.delete(id);
    await forgetClock(id);
    await database.drafts.put({
      id: `${PREFIX_OF_DELETED}${id}`,
      value: { ...value, drafts } satisfies DeletedJob,
      savedAt: new Date().toISOString(),
    });
  });
}

const isOf = ({ id: draftId }: Draft, jobId: string): boolean =>
  draftId.endsWith(`-${jobId}`) && !draftId.startsWith(PREFIX_OF_DELETED);

const isRecent = ({ savedAt }: Draft): boolean => Date.now() - Date.parse(savedAt) < KEPT_MS;

/** Jobs that were deleted within the last day, the latest first; what is older is let go. */
export async function deletedJobs(): Promise<Array<{ id: string; number: string }>> {
  const kept = await database.drafts.where("id").startsWith(PREFIX_OF_DELETED).toArray();
  return kept
    .filter(isRecent)
    .toSorted((a, b) => (a.savedAt < b.savedAt ? 1 : -1))
    .map(({ value }) => (value as DeletedJob).job);
}

/** Lets go what was deleted more than a day ago. */
export async function letGoOfDeleted(): Promise<void> {
  await database.drafts
    .where("id")
    .startsWith(PREFIX_OF_DELETED)
    .filter((draft) => !isRecent(draft))
    .delete();
}

/** Brings a deleted job back as it was. @throws Error where it is gone for good, or another took its place */
export async function bringBackJob(id: string): Promise<void> {
  await database.transaction("rw", TABLES, async () => {
    const kept = await database.drafts.get(`${PREFIX_OF_DELETED}${id}`);
    if (!kept) throw new Error("This job was deleted more than a day ago: it cannot be brought back.");
    if (await database.jobs.get(id)) throw new Error("This job is here again already, from a file.");
    const { job, readings, adjustments, runs, watches, recordings, drafts, ...workshop } =
      kept.value as DeletedJob;
    await database.jobs.add(job);
    await database.readings.bulkAdd(readings);
    await database.adjustments.bulkAdd(adjustments);
    await database.runs.bulkAdd(runs);
    await database.watches.bulkAdd(watches);
    await database.recordings.bulkAdd(recordings);
    await database.neededParts.bulkAdd(workshop.neededParts ?? []);
    await database.stripDown.bulkAdd(workshop.stripDown ?? []);
    await database.pictures.bulkAdd(workshop.pictures ?? []);
    await database.drafts.bulkPut(drafts);
    await database.drafts.delete(kept.id);
  });
}
