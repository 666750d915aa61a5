import { ulid } from "ulid";
import {
  knownAdjustmentSchema,
  knownJobSchema,
  knownMachineSchema,
  knownReadingSchema,
} from "@/core/alignment/known-records";
import type { Adjustment } from "@/core/records/adjustment";
import { pathEntrySchema, type Job, type PathEntry } from "@/core/records/job";
import type { Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { clean } from "@/core/stations/clean";
import { decide, tapeCheckSchema, type TapeCheck } from "@/core/workshop/tape-condition";
import { inOrder } from "./clock-set-back";
import { database } from "./database";
import { writes } from "./kept-writes";

/** When something was logged last in this browser. */
export const LAST_LOGGED = "last-logged";

export const newId = (): string => ulid();

/** Stores a new job, and its machine when that is new too, or nothing at all. */
export async function createJob(job: Job, machine: Machine | null): Promise<void> {
  await database.transaction("rw", database.jobs, database.machines, async () => {
    if (machine) await database.machines.add(knownMachineSchema.parse(machine));
    await database.jobs.add(knownJobSchema.parse(job));
  });
}

/** Changes single fields of a job, so that two tabs that change different fields do not undo each other. */
export async function changeJob(
  id: string,
  fields: Partial<
    Pick<
      Job,
      | "complaint"
      | "notes"
      | "symptoms"
      | "cameWith"
      | "contact"
      | "wantedBy"
      | "finishedAt"
      | "tapeId"
      | "speedCmPerS"
      | "otherSpeeds"
      | "oneSideOnly"
      | "leftOut"
      | "blankTapes"
      | "biasSchool"
      | "zero"
    >
  >,
): Promise<void> {
  await writes.write("a change of the job", async () => {
    await database.jobs.update(id, { ...fields, updatedAt: new Date().toISOString() });
  });
}

/** Ticks or unticks one line of a checklist. */
export async function setCheck(id: string, station: string, line: string, done: boolean): Promise<void> {
  await writes.write("a tick", () =>
    database.transaction("rw", database.jobs, async () => {
      const job = await database.jobs.get(id);
      if (!job) return;
      const others = (job.done[station] ?? []).filter((other) => other !== line);
      await database.jobs.update(id, {
        done: { ...job.done, [station]: done ? [...others, line] : others },
        updatedAt: new Date().toISOString(),
      });
    }),
  );
}

/** Changes what was written down of the tapes that were looked at. */
export async function changeTapeChecks(
  id: string,
  change: (checks: TapeCheck[]) => TapeCheck[],
): Promise<void> {
  await writes.write("what was seen of a tape", () =>
    database.transaction("rw", database.jobs, async () => {
      const job = await database.jobs.get(id);
      if (!job) return;
      const tapeChecks = change(job.tapeChecks ?? []).map((check) => tapeCheckSchema.parse(check));
      await database.jobs.update(id, { tapeChecks, updatedAt: new Date().toISOString() });
    }),
  );
}

/** Says that a tape was played. One that leaves something in the path takes the ticks of cleaning away. */
export async function playedTape(id: string, checkId: string): Promise<void> {
  await writes.write("that a tape was played", () =>
    database.transaction("rw", database.jobs, async () => {
      const job = await database.jobs.get(id);
      const check = job?.tapeChecks?.find((one) => one.id === checkId);
      if (!job || !check) return;
      const playedAt = new Date().toISOString();
      await database.jobs.update(id, {
        tapeChecks: job.tapeChecks!.map((one) => (one.id === checkId ? { ...one, playedAt } : one)),
        done: decide(check, playedAt).cleanAfter ? { ...job.done, [clean.id]: [] } : job.done,
        updatedAt: playedAt,
      });
    }),
  );
}

/** Adds a picture to those of the machine as it came in, or takes one out. */
export async function changeJobPictures(id: string, change: (ids: string[]) => string[]): Promise<void> {
  await writes.write("a picture of the job", () =>
    database.transaction("rw", database.jobs, async () => {
      const job = await database.jobs.get(id);
      if (job)
        await database.jobs.update(id, {
          pictures: change(job.pictures ?? []),
          updatedAt: new Date().toISOString(),
        });
    }),
  );
}

/** Appends what was gauged at a guide or head, or takes an entry out again. */
export async function changePathLog(id: string, change: (log: PathEntry[]) => PathEntry[]): Promise<void> {
  await writes.write("a line of the path", () =>
    database.transaction("rw", database.jobs, async () => {
      const job = await database.jobs.get(id);
      if (!job) return;
      const pathLog = change(job.pathLog ?? []).map((entry) => pathEntrySchema.parse(entry));
      await database.jobs.update(id, { pathLog, updatedAt: new Date().toISOString() });
    }),
  );
}

/**
 * Appends readings and adjustments of one moment, all of them or none; they are never edited. Resolves once they are
 * stored: what the storage does not take is kept on this page and tried again.
 */
export async function appendEntries({
  readings,
  adjustments,
}: {
  readings: Reading[];
  adjustments: Adjustment[];
}): Promise<void> {
  const known = readings.map((reading) => knownReadingSchema.parse(reading));
  const turned = adjustments.map((adjustment) => knownAdjustmentSchema.parse(adjustment));
  const [first] = [...known, ...turned];
  if (!first) return;
  const what = known.length > 0 ? `a reading of ${known[0].station}` : "a turn";
  await writes.write(what, () =>
    database.transaction("rw", database.readings, database.adjustments, database.flags, async () => {
      const all = await inOrder(first.jobId, { readings: known, adjustments: turned }, Date.now());
      await database.readings.bulkAdd(all.readings);
      await database.adjustments.bulkAdd(all.adjustments);
      await database.flags.put({ id: LAST_LOGGED, value: new Date().toISOString() });
    }),
  );
}

export const appendReadings = (readings: Reading[]): Promise<void> =>
  appendEntries({ readings, adjustments: [] });

export const appendAdjustment = (adjustment: Adjustment): Promise<void> =>
  appendEntries({ readings: [], adjustments: [adjustment] });

/** The next free number for a tag: one more than the largest there is. */
export async function nextJobNumber(): Promise<string> {
  const numbers = (await database.jobs.toArray())
    .map(({ number }) => Number(number))
    .filter(Number.isInteger);
  return String(Math.max(0, ...numbers) + 1).padStart(4, "0");
}
