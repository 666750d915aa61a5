import type * as z from "@/core/text/zod";
import { valueOfJson } from "./json-text";
import { firstIssue, ImportError, MOST_TEXT_BYTES } from "./import-error";

/**
 * Reads a JSON file of one of Unzel's own formats ("unzel-tape" …), checked by its schema.
 * @param what the kind of thing in it, as in "reference tape"
 * @throws ImportError saying what is wrong and what to do
 */
export function readJsonFile<T extends z.ZodType>(
  text: string,
  schema: T,
  what: string,
  format = `unzel-${what.replaceAll(" ", "-")}`,
): z.output<T> {
  if (text.length > MOST_TEXT_BYTES)
    throw new ImportError(`The file is larger than any ${what}. Choose another file.`);
  const raw = valueOfJson(text);
  if (raw === undefined)
    throw new ImportError(
      `This is not complete JSON: the file is damaged, cut short or of another kind. Export the ${what} again.`,
    );
  const header = raw as { format?: unknown; version?: unknown } | null;
  if (typeof raw !== "object" || header === null || header.format !== format)
    throw new ImportError(
      `This is not a ${what}: its "format" must be "${format}". Choose a file that was exported as a ${what}.`,
    );
  if (typeof header.version === "number" && Number.isFinite(header.version) && header.version > 1)
    throw new ImportError(
      `The ${what} file is of version ${header.version}; this Unzel reads version 1. Update Unzel and import it again.`,
    );
  const parsed = schema.safeParse(raw);
  if (!parsed.success)
    throw new ImportError(
      `The ${what} file cannot be used: ${firstIssue(parsed.error)}. Nothing was imported.`,
    );
  return parsed.data;
}
