import { speedsOf } from "@/core/records/job-speeds";
import { readTapesCsv } from "@/core/formats/tape-csv";
import { readTapeJson } from "@/core/formats/tape-json";
import { referenceTapeSchema, type ReferenceTape } from "@/core/reference/reference-tape";
import { database } from "./database";
import { writes } from "./kept-writes";
import { addNew, type Differing } from "./offered-records";

export async function saveTape(tape: ReferenceTape): Promise<void> {
  await database.tapes.put(referenceTapeSchema.parse(tape));
}

/** Deletes a tape unless a job or a reading still names it. @throws Error saying which job does */
export async function deleteTape(id: string): Promise<void> {
  await database.transaction("rw", database.tapes, database.jobs, database.readings, async () => {
    const job = (await database.jobs.toArray()).find((one) =>
      speedsOf(one).some(({ tapeId }) => tapeId === id),
    );
    if (job) throw new Error(`Job ${job.number} uses this tape. Give that job another tape first.`);
    const reading = (await database.readings.toArray()).find(({ context }) => context.tapeId === id);
    if (reading) throw new Error("A logged reading was made with this tape, so it has to stay.");
    await database.tapes.delete(id);
  });
}

/**
 * Imports tapes from a JSON or CSV file, all of it or nothing. One that is here
 * already stays as it is: what of it differs is returned, to be taken or not.
 * @throws ImportError saying what is wrong and what to do
 */
export async function importTapes(
  fileName: string,
  text: string,
): Promise<{ tapes: ReferenceTape[]; differing: Differing[] }> {
  const looksLikeJson = /^\s*[{[]/.test(text) || fileName.toLowerCase().endsWith(".json");
  const tapes = looksLikeJson ? [readTapeJson(text)] : readTapesCsv(text);
  return { tapes, differing: await addNew("tapes", tapes) };
}

/** Counts one more play of a tape. */
export async function countPlay(id: string): Promise<void> {
  await writes.write(
    "a play of a tape",
    async () =>
      void (await database.tapes
        .where("id")
        .equals(id)
        .modify((tape) => {
          tape.plays = (tape.plays ?? 0) + 1;
        })),
  );
}
