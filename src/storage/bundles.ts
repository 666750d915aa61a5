import type { Table } from "dexie";
import { ImportError } from "@/core/formats/import-error";
import {
  isSigned,
  readBundle,
  textInKeyOrder,
  writeBundle,
  type BundleContent,
} from "@/core/formats/job-bundle";
import { speedsOf } from "@/core/records/job-speeds";
import type { Job } from "@/core/records/job";
import { partOfWaiting } from "@/core/records/part-of-waiting";
import { blankNamed } from "@/core/records/blank-tape";
import { blanksOf } from "./blanks";
import { database } from "./database";
import { differingOf, OFFERED, type Differing } from "./offered-records";

/** One job with its machine and every tape that its readings name. @throws Error where there is none */
export async function contentOfJob(jobId: string): Promise<BundleContent> {
  const job = await database.jobs.get(jobId);
  if (!job) throw new Error(`There is no job ${jobId} in this browser.`);
  const readings = await database.readings.where("jobId").equals(jobId).sortBy("id");
  const adjustments = await database.adjustments.where("jobId").equals(jobId).sortBy("id");
  const tapeIds = [
    ...new Set([...speedsOf(job).map(({ tapeId }) => tapeId), ...readings.map((r) => r.context.tapeId)]),
  ];
  const present = <T>(records: Array<T | undefined>) =>
    records.filter((record): record is T => record !== undefined);
  return {
    jobs: [job],
    machines: present([await database.machines.get(job.machineId)]),
    tapes: present(await database.tapes.bulkGet(tapeIds)),
    blanks: await blanksOf(job, readings),
    readings,
    adjustments,
    runs: await database.runs.where("jobId").equals(jobId).sortBy("id"),
    watches: await database.watches.where("jobId").equals(jobId).sortBy("id"),
    neededParts: await database.neededParts.where("jobId").equals(jobId).sortBy("id"),
    stripDown: await database.stripDown.where("jobId").equals(jobId).sortBy("place"),
  };
}

/** The bundle text of one job. */
export const exportJob = async (jobId: string): Promise<string> =>
  writeBundle(await contentOfJob(jobId), new Date().toISOString());

export interface ImportOutcome {
  jobNumbers: string[];
  jobIds: string[];
  newReadings: number;
  newAdjustments: number;
  /** Stands here with another content than in the file, and was left as it is. */
  differing: Differing[];
}

/**
 * Imports a bundle, all or nothing. Readings and adjustments are added to those that are here, and never change one of
 * them; of a job that is here already, the one that was changed later stays. A
 * machine or tape that is here stays as it is; where the file has another, that is told, and can be taken.
 * @throws ImportError when the file cannot be used, or holds something that was logged here otherwise
 */
export async function importBundle(text: string): Promise<ImportOutcome> {
  return storeContent(readBundle(text));
}

export { isSigned };

/** What a job file would add, before it does. */
export interface ImportPreview {
  /** It carries the checksum that it was exported with, so that it is as it was then. */
  signed: boolean;
  jobNumbers: string[];
  newReadings: number;
  newAdjustments: number;
}

/** @throws ImportError when the file cannot be used */
export async function previewBundle(text: string): Promise<ImportPreview> {
  const content = readBundle(text);
  const missing = async (table: string, records: ReadonlyArray<{ id: string }>) =>
    (await database.table(table).bulkGet(idsOf(records))).filter((one) => one === undefined).length;
  return {
    signed: isSigned(text),
    jobNumbers: content.jobs.map(({ number }) => number),
    newReadings: await missing("readings", content.readings),
    newAdjustments: await missing("adjustments", content.adjustments),
  };
}

/**
 * Adds, of what was logged, the records that are not here yet.
 * @returns how many were added, @throws ImportError where one stands here with another content
 */
async function addLogged(
  table: Table<{ id: string }, string>,
  records: ReadonlyArray<{ id: string }>,
  what: string,
): Promise<number> {
  const here = await table.bulkGet(idsOf(records));
  const others = records.filter((record, i) => {
    const there = here[i];
    return there !== undefined && textInKeyOrder(there) !== textInKeyOrder(record);
  });
  if (others.length > 0)
    throw new ImportError(
      `${others.length === 1 ? `A ${what}` : `${others.length} ${what}s`} in the file (the first is ${others[0].id}) stood in this browser before, with another content. What was logged is never changed: nothing was imported. Delete the job here first if the file is right.`,
    );
  const added = records.filter((_, i) => here[i] === undefined);
  await table.bulkAdd(added);
  return added.length;
}

const idsOf = (records: ReadonlyArray<{ id: string }>): string[] => records.map(({ id }) => id);

interface Updated {
  id: string;
  updatedAt: string;
}

/** Puts records, but for those that stand here as they were changed later. */
async function putIfLater(table: Table<Updated, string>, records: readonly Updated[]): Promise<void> {
  const latest = new Map<string, Updated>();
  for (const record of records) {
    const other = latest.get(record.id);
    if (!other || other.updatedAt < record.updatedAt) latest.set(record.id, record);
  }
  const all = [...latest.values()];
  const here = await table.bulkGet([...latest.keys()]);
  await table.bulkPut(
    all.filter(({ updatedAt }, i) => {
      const mine = here[i];
      return mine === undefined || mine.updatedAt < updatedAt;
    }),
  );
}

/** Adds records that are not here yet; of several under one id the first. */
async function addMissing(
  table: Table<{ id: string }, string>,
  records: ReadonlyArray<{ id: string }>,
): Promise<void> {
  const first = new Map(records.toReversed().map((record) => [record.id, record]));
  const here = await table.bulkGet([...first.keys()]);
  await table.bulkAdd([...first.values()].filter((_, i) => here[i] === undefined));
}

async function storeContent(content: BundleContent): Promise<ImportOutcome> {
  const { jobs, machines, tapes, blanks, readings, adjustments, runs, watches, neededParts, stripDown } =
    content;
  const tables = [
    database.jobs,
    database.machines,
    database.tapes,
    database.blanks,
    database.readings,
    database.adjustments,
    database.runs,
    database.watches,
    database.neededParts,
    database.stripDown,
  ];
  return database.transaction("rw", tables, async () => {
    const differing = (await Promise.all(OFFERED.map((table) => differingOf(table, content[table])))).flat();
    const jobsNow: Job[] = jobs.map((job) => ({ ...job, waiting: null }));
    // a job of an earlier version names its blank tapes and no more
    const named = jobs.flatMap((job) => job.blankTapes ?? []).map(({ id, name }) => blankNamed(id, name));
    const [newReadings, newAdjustments] = await Promise.all([
      addLogged(database.table("readings"), readings, "reading"),
      addLogged(database.table("adjustments"), adjustments, "turn"),
      addLogged(database.table("runs"), runs, "run"),
      addLogged(database.table("watches"), watches, "watched run"),
      putIfLater(database.table("jobs"), jobsNow),
      putIfLater(database.table("neededParts"), [
        ...neededParts,
        ...jobs.flatMap((job) => partOfWaiting(job) ?? []),
      ]),
      putIfLater(database.table("stripDown"), stripDown),
      addMissing(database.table("machines"), machines),
      addMissing(database.table("tapes"), tapes),
      addMissing(database.table("blanks"), [...blanks, ...named]),
    ]);
    return {
      jobNumbers: jobs.map(({ number }) => number),
      jobIds: jobs.map(({ id }) => id),
      newReadings,
      newAdjustments,
      differing,
    };
  });
}
