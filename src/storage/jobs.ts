import { ulid } from "ulid";
import {
  knownAdjustmentSchema,
  knownJobSchema,
  knownMachineSchema,
  knownReadingSchema,
} from "@/core/alignment/known-records";
import type { Adjustment } from "@/core/records/adjustment";
import { jobSchema, pathEntrySchema, type Job } from "@/core/records/job";
import { speedsOf } from "@/core/records/job-speeds";
import type { Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { clean } from "@/core/stations/clean";
import { beltChangeSchema } from "@/core/workshop/belt-change";
import { cleaningEntrySchema } from "@/core/workshop/cleaning";
import { functionTrialSchema } from "@/core/workshop/function-trial";
import * as z from "@/core/text/zod";
import { decide, tapeCheckSchema } from "@/core/workshop/tape-condition";
import { inOrder } from "./clock-set-back";
import { database } from "./database";
import { writes } from "./kept-writes";
import { validFields } from "./valid-fields";
import { LAST_LOGGED } from "./last-logged";
import { dropWaiting, keepWaiting, waitingEntries, type WaitingEntries } from "./waiting-entries";

export const newId = (): string => ulid();

/**
 * Stores a new job, and its machine when that is new too, or nothing at all.
 * @throws Error with a sentence where its machine or a tape was deleted meanwhile
 */
export async function createJob(job: Job, machine: Machine | null): Promise<void> {
  await database.transaction("rw", database.jobs, database.machines, database.tapes, async () => {
    if (machine) await database.machines.add(knownMachineSchema.parse(machine));
    if (!(await database.machines.get(job.machineId)))
      throw new Error("Its machine was deleted meanwhile: choose another one.");
    const tapes = await database.tapes.bulkGet(speedsOf(job).map(({ tapeId }) => tapeId));
    if (tapes.includes(undefined))
      throw new Error("Its reference tape was deleted meanwhile: choose another one.");
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
      | "ownerWords"
      | "nextCheck"
      | "finishedAt"
      | "tapeId"
      | "speedCmPerS"
      | "otherSpeeds"
      | "oneSideOnly"
      | "leftOut"
      | "biasSchool"
      | "zero"
    >
  >,
): Promise<void> {
  await writes.write("a change of the job", async () => {
    const valid = validFields(jobSchema.shape, fields);
    await database.jobs.update(id, { ...valid, updatedAt: new Date().toISOString() });
  });
}

/** Changes a job by what it is when its turn comes; one that is gone is left alone. */
const changeStored = (what: string, id: string, to: (job: Job) => Partial<Job>): Promise<void> =>
  writes.write(what, () =>
    database.transaction("rw", database.jobs, async () => {
      const job = await database.jobs.get(id);
      if (!job) return;
      const valid = validFields(jobSchema.shape, to(job));
      await database.jobs.update(id, { ...valid, updatedAt: new Date().toISOString() });
    }),
  );

/** Changes what the complaint means, by what is stored by then: fast presses do not undo each other. */
export const changeSymptoms = (id: string, change: (now: Symptoms) => Symptoms): Promise<void> =>
  changeStored("a symptom", id, ({ symptoms = [] }) => ({ symptoms: change(symptoms) }));
type Symptoms = NonNullable<Job["symptoms"]>;

/** Ticks or unticks one line of a checklist. */
export const setCheck = (id: string, station: string, line: string, isDone: boolean): Promise<void> =>
  changeStored("a tick", id, ({ done }) => {
    const others = (done[station] ?? []).filter((other) => other !== line);
    return { done: { ...done, [station]: isDone ? [...others, line] : others } };
  });

/** Lists that a job holds itself, an entry each for what was found or done. */
type ListField = "pathLog" | "cleaning" | "belts" | "functionTrials" | "tapeChecks";
type Entry<F extends ListField> = NonNullable<Job[F]>[number];

/** Changes one of its lists: entries are appended, taken out again, or put right. @param what as it is told when it fails */
const changesOf =
  <F extends ListField>(what: string, field: F, schema: { parse(entry: unknown): Entry<F> }) =>
  (id: string, change: (entries: Entry<F>[]) => Entry<F>[]): Promise<void> =>
    changeStored(what, id, (job) => ({
      [field]: change((job[field] ?? []) as Entry<F>[]).map((entry) => schema.parse(entry)),
    }));

/** What was gauged at a guide or head. */
export const changePathLog = changesOf("a line of the path", "pathLog", pathEntrySchema);
/** What was found and done at a part. */
export const changeCleaning = changesOf("what was cleaned", "cleaning", cleaningEntrySchema);
/** Belts that were changed. */
export const changeBelts = changesOf("a belt", "belts", beltChangeSchema);
/** Trials of the machine's functions. */
export const changeFunctionTrials = changesOf("a trial of a function", "functionTrials", functionTrialSchema);
/** What was written down of the tapes that were looked at. */
export const changeTapeChecks = changesOf("what was seen of a tape", "tapeChecks", tapeCheckSchema);

/** Says that a tape was played. One that leaves something in the path takes the ticks of cleaning away. */
export const playedTape = (id: string, checkId: string): Promise<void> =>
  changeStored("that a tape was played", id, ({ tapeChecks = [], done }) => {
    const playedAt = new Date().toISOString();
    const played = tapeChecks.find((one) => one.id === checkId);
    return {
      tapeChecks: tapeChecks.map((one) => (one === played ? { ...one, playedAt } : one)),
      done: played && decide(played, playedAt).cleanAfter ? { ...done, [clean.id]: [] } : done,
    };
  });

/** Writes down that a tape squealed while it played: it sheds, so the ticks of cleaning are taken away. */
export const tapeSquealed = (id: string, name: string): Promise<void> =>
  changeStored("that a tape squealed", id, ({ tapeChecks = [], done }) => {
    const at = new Date().toISOString();
    const check = { id: newId(), at, name: name.slice(0, 120), signs: ["squeals"], playedAt: at };
    return { tapeChecks: [...tapeChecks, tapeCheckSchema.parse(check)], done: { ...done, [clean.id]: [] } };
  });

/** Changes the tapes that a job is set to record on. */
export const changeBlankTapes = (id: string, change: (tapes: JobTape[]) => JobTape[]): Promise<void> =>
  changeStored("a tape to record on", id, ({ blankTapes = [] }) => ({ blankTapes: change(blankTapes) }));
type JobTape = NonNullable<Job["blankTapes"]>[number];

/** Adds a picture to those of the machine as it came in, or as it goes out again; or takes one out. */
export const changeJobPictures = (
  id: string,
  of: "pictures" | "picturesAfter",
  change: (ids: string[]) => string[],
): Promise<void> => changeStored("a picture of the job", id, (job) => ({ [of]: change(job[of] ?? []) }));

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
  const entries: WaitingEntries = { readings: known, adjustments: turned };
  const what = known.length > 0 ? `a reading of ${known[0].station}` : "a turn";
  await writes.write(what, () => addEntries(first.jobId, entries), {
    kind: "logged",
    waits: () => keepWaiting(first.id, entries),
  });
  dropWaiting(first.id);
}

const addEntries = (jobId: string, { readings, adjustments }: WaitingEntries): Promise<void> =>
  database.transaction("rw", database.readings, database.adjustments, database.flags, async () => {
    const all = await inOrder(jobId, { readings, adjustments }, Date.now());
    await database.readings.bulkAdd(all.readings);
    await database.adjustments.bulkAdd(all.adjustments);
    await database.flags.put({ id: LAST_LOGGED, value: new Date().toISOString() });
  });

const entriesSchema = z.object({
  readings: z.array(knownReadingSchema),
  adjustments: z.array(knownAdjustmentSchema),
});

/** Stores what was logged on an earlier page and could not be stored there. @returns how many entries that were */
export async function storeWaiting(): Promise<number> {
  let stored = 0;
  for (const [id, kept] of waitingEntries()) {
    const parsed = entriesSchema.safeParse(kept);
    if (!parsed.success) continue;
    const { readings, adjustments } = parsed.data;
    const here = await database.readings.bulkGet(readings.map((one) => one.id));
    const there = await database.adjustments.bulkGet(adjustments.map((one) => one.id));
    const missing = {
      readings: readings.filter((_, i) => here[i] === undefined),
      adjustments: adjustments.filter((_, i) => there[i] === undefined),
    };
    await appendEntries(missing);
    dropWaiting(id);
    stored += missing.readings.length + missing.adjustments.length;
  }
  return stored;
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
