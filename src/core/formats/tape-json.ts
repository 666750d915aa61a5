import { referenceTapeSchema, type ReferenceTape } from "@/core/reference/reference-tape";
import { firstIssue, ImportError, MOST_TEXT_BYTES } from "./import-error";

/** One reference tape as a JSON file. */
export const writeTapeJson = (tape: ReferenceTape): string => `${JSON.stringify(tape, null, 1)}\n`;

/**
 * Reads a reference tape file.
 * @throws ImportError saying what is wrong and what to do
 */
export function readTapeJson(text: string): ReferenceTape {
  if (text.length > MOST_TEXT_BYTES)
    throw new ImportError("The file is larger than any reference tape. Choose another file.");
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new ImportError(
      "This is not complete JSON: the file is damaged, cut short or of another kind. Export the tape again.",
    );
  }
  const header = raw as { format?: unknown; version?: unknown } | null;
  if (typeof raw !== "object" || header === null || header.format !== "unzel-reference-tape")
    throw new ImportError(
      'This is not a reference tape: its "format" must be "unzel-reference-tape". Choose a file that was exported as a tape.',
    );
  if (typeof header.version === "number" && header.version > 1)
    throw new ImportError(
      `The tape file is of version ${header.version}; this Unzel reads version 1. Update Unzel and import it again.`,
    );
  const parsed = referenceTapeSchema.safeParse(raw);
  if (!parsed.success)
    throw new ImportError(`The tape file cannot be used: ${firstIssue(parsed.error)}. Nothing was imported.`);
  return parsed.data;
}
