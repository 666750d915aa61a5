import { sequenceSchema, type Sequence } from "@/core/signals/sequence";
import { readJsonFile } from "./json-file";

/** A test sequence as a JSON file. */
export const writeSequenceJson = (sequence: Sequence): string => `${JSON.stringify(sequence, null, 1)}\n`;

/**
 * Reads a test sequence file.
 * @throws ImportError saying what is wrong and what to do
 */
export const readSequenceJson = (text: string): Sequence =>
  readJsonFile(text, sequenceSchema, "test sequence", "unzel-sequence");
