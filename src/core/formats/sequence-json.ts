import { sequenceSchema, type Sequence } from "@/core/signals/sequence";
import { firstIssue, ImportError, MOST_TEXT_BYTES } from "./import-error";

/** A test sequence as a JSON file. */
export const writeSequenceJson = (sequence: Sequence): string => `${JSON.stringify(sequence, null, 1)}\n`;

/**
 * Reads a test sequence file.
 * @throws ImportError saying what is wrong and what to do
 */
export function readSequenceJson(text: string): Sequence {
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
  return parsed.data;
}
