import type * as z from "@/core/text/zod";

/** Why a file could not be taken in, in a sentence for the person who chose it. Nothing was changed. */
export class ImportError extends Error {
  override name = "ImportError";
}

export const MOST_TEXT_BYTES = 4 * 1024 * 1024;

const MOST_PLACE = 80;

/** The first thing wrong with a record, with its place: "bands 3 levelDb: at most 20 can be, 40 was found". */
export function firstIssue(error: z.ZodError): string {
  const { path } = error.issues[0];
  const message = error.issues[0].message.replace(/\.$/, "");
  const place = path.map((part) => (typeof part === "number" ? String(part + 1) : String(part))).join(" ");
  return place === "" ? message : `${place.slice(0, MOST_PLACE)}: ${message}`;
}
