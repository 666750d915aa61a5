import { database } from "./database";
import { writes } from "./kept-writes";

/** Drafts survive a reload or a crash; the id says what was being typed, and where. */
export async function readDraft(id: string): Promise<unknown> {
  return (await database.drafts.get(id))?.value;
}

export async function saveDraft(id: string, value: unknown): Promise<void> {
  await writes.write(
    "what is typed",
    async () => void (await database.drafts.put({ id, value, savedAt: new Date().toISOString() })),
    { place: `draft ${id}`, kind: "typed" },
  );
}

export async function dropDraft(id: string): Promise<void> {
  // after what is yet to be kept of it
  await writes.write("what was typed", () => database.drafts.delete(id), {
    place: `draft ${id}`,
    kind: "typed",
  });
}
