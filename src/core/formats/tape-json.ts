import { referenceTapeSchema, type ReferenceTape } from "@/core/reference/reference-tape";
import { readJsonFile } from "./json-file";

/** One reference tape as a JSON file. */
export const writeTapeJson = (tape: ReferenceTape): string => `${JSON.stringify(tape, null, 1)}\n`;

/**
 * Reads a reference tape file.
 * @throws ImportError saying what is wrong and what to do
 */
export const readTapeJson = (text: string): ReferenceTape =>
  readJsonFile(text, referenceTapeSchema, "reference tape");
