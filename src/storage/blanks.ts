import { readBlankJson } from "@/core/formats/blank-tape-json";
import { blankTapeSchema, type BlankTape } from "@/core/records/blank-tape";
import type { Job } from "@/core/records/job";
import type { Reading } from "@/core/records/reading";
import { database } from "./database";
import { addNew, type Differing } from "./offered-records";

export async function saveBlank(blank: BlankTape): Promise<void> {
  await database.blanks.put(blankTapeSchema.parse(blank));
}

/** Deletes a blank tape unless a job is set for it. @throws Error saying which job is */
export async function deleteBlank(id: string): Promise<void> {
  await database.transaction("rw", database.blanks, database.jobs, database.readings, async () => {
    const job = (await database.jobs.toArray()).find((one) =>
      one.blankTapes?.some((named) => named.id === id),
    );
    if (job) throw new Error(`Job ${job.number} is set for this tape. Take it off that job first.`);
    const reading = (await database.readings.toArray()).find(({ context }) => context.recordingOn === id);
    if (reading) throw new Error("A logged reading was taken on this tape, so it has to stay.");
    await database.blanks.delete(id);
  });
}

/**
 * Imports a blank tape file. One that is here already stays as it is: what of it differs is returned.
 * @throws ImportError saying what is wrong and what to do
 */
export async function importBlank(text: string): Promise<{ blank: BlankTape; differing: Differing[] }> {
  const blank = readBlankJson(text);
  return { blank, differing: await addNew("blanks", [blank]) };
}

/** The blank tapes that a job is set for, then any other that its readings were taken on. */
export async function blanksOf(job: Job, readings: readonly Reading[]): Promise<BlankTape[]> {
  const named = (job.blankTapes ?? []).map(({ id }) => id);
  const read = readings.flatMap(({ context }) => context.recordingOn ?? []);
  const found = await database.blanks.bulkGet([...new Set([...named, ...read])]);
  return found.filter((blank) => blank !== undefined);
}
