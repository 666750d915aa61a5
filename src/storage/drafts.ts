import { database } from "./database";

/** Drafts survive a reload or a crash; the id says what was being typed, and where. */
export async function readDraft(id: string): Promise<unknown> {
  return (await database.drafts.get(id))?.value;
}

export async function saveDraft(id: string, value: unknown): Promise<void> {
  await database.drafts.put({ id, value, savedAt: new Date().toISOString() });
}

export async function dropDraft(id: string): Promise<void> {
  await database.drafts.delete(id);
}
