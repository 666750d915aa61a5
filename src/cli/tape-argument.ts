import { readFile } from "node:fs/promises";
import { readTapeJson } from "@/core/formats/tape-json";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { UsageError } from "./exit";

export const KNOWN_TAPES: readonly ReferenceTape[] = [...DEMO_TAPES, ...BUILT_IN_TAPES];

/**
 * A tape by the name of its JSON file or by its id.
 * @throws UsageError when it is neither, ImportError when the file cannot be used
 */
export async function tapeArgument(given: string): Promise<ReferenceTape> {
  const known = KNOWN_TAPES.find(({ id }) => id === given);
  if (known) return known;
  const text = await readFile(given, "utf8").catch((error: NodeJS.ErrnoException) => {
    throw error.code === "ENOENT" && !given.endsWith(".json")
      ? new UsageError(
          `there is no tape "${given}"; give a tape file or one of ${KNOWN_TAPES.map(({ id }) => id).join(", ")}`,
        )
      : new Error(
          error.code === "ENOENT"
            ? `There is no file ${given}.`
            : `${given} cannot be read: ${error.message}`,
        );
  });
  return readTapeJson(text);
}
