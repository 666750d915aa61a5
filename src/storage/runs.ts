import { partRunSchema, watchSchema, type PartRun, type Watch } from "@/core/records/runs";
import { database } from "./database";
import { writes } from "./kept-writes";

/** Keeps the parts that were heard in a run, to compare a later one with. */
export async function keepRun(run: PartRun): Promise<void> {
  const known = partRunSchema.parse(run);
  await writes.write("a run", async () => void (await database.runs.put(known)));
}

export const deleteRun = (id: string): Promise<void> => database.runs.delete(id);

/** Keeps a long run that was watched. */
export async function keepWatch(watch: Watch): Promise<void> {
  const known = watchSchema.parse(watch);
  await writes.write("a watched run", async () => void (await database.watches.put(known)));
}

export const deleteWatch = (id: string): Promise<void> => database.watches.delete(id);
