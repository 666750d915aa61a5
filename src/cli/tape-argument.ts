import { readTapeJson } from "@/core/formats/tape-json";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { knownOrFile } from "./known-or-file";

export const KNOWN_TAPES: readonly ReferenceTape[] = [...DEMO_TAPES, ...BUILT_IN_TAPES];

/**
 * A tape by the name of its JSON file or by its id.
 * @throws UsageError when it is neither, ImportError when the file cannot be used
 */
export const tapeArgument = (given: string): Promise<ReferenceTape> =>
  knownOrFile(given, "tape", KNOWN_TAPES, readTapeJson);
