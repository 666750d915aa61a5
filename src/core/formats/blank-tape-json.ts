import { blankTapeSchema, type BlankTape } from "@/core/records/blank-tape";
import { readJsonFile } from "./json-file";

/** One blank tape as a JSON file. */
export const writeBlankJson = (blank: BlankTape): string => `${JSON.stringify(blank, null, 1)}\n`;

/**
 * Reads a blank tape file.
 * @throws ImportError saying what is wrong and what to do
 */
export const readBlankJson = (text: string): BlankTape => readJsonFile(text, blankTapeSchema, "blank tape");
