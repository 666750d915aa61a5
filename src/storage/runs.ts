import { partRunSchema, watchSchema, type PartRun, type Watch } from "@/core/records/runs";
import { database } from "./database";

/** Keeps the parts that were heard in a run, to compare a later one with. */
export async function keepRun(run: PartRun): Promise<void> {
  await database.runs.put(partRunSchema.parse(run));
}

export const deleteRun = (id: string): Promise<void> => database.runs.delete(id);

/** Keeps a long run that was watched. */
export async function keepWatch(watch: Watch): Promise<void> {
  await database.watches.put(watchSchema.parse(watch));
}

export const deleteWatch = (id: string): Promise<void> => database.watches.delete(id);
