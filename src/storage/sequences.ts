import { firstIssue, ImportError, MOST_TEXT_BYTES } from "@/core/formats/import-error";
import { sequenceSchema, type Sequence } from "@/core/signals/sequence";
import { database } from "./database";

export async function saveSequence(sequence: Sequence): Promise<void> {
  await database.sequences.put(sequenceSchema.parse(sequence));
}

export const deleteSequence = (id: string): Promise<void> => database.sequences.delete(id);

/** Imports a sequence from its JSON file. @throws ImportError saying what is wrong and what to do */
export async function importSequence(text: string): Promise<Sequence> {
  if (text.length > MOST_TEXT_BYTES)
    throw new ImportError("The file is larger than any sequence. Choose another file.");
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new ImportError("This is not complete JSON: the file is damaged or of another kind.");
  }
  const parsed = sequenceSchema.safeParse(raw);
  if (!parsed.success)
    throw new ImportError(`This is not a test sequence: ${firstIssue(parsed.error)}. Nothing was imported.`);
  await saveSequence(parsed.data);
  return parsed.data;
}
