import { readFile } from "node:fs/promises";
import { UsageError } from "./exit";

/**
 * A thing that comes with Unzel, by its id, or one of the user's own, by the name of its file.
 * @throws UsageError when it is neither, ImportError when the file cannot be used
 */
export async function knownOrFile<T extends { id: string }>(
  given: string,
  what: string,
  known: readonly T[],
  read: (text: string) => T,
): Promise<T> {
  const found = known.find(({ id }) => id === given);
  if (found) return found;
  const text = await readFile(given, "utf8").catch((error: NodeJS.ErrnoException) => {
    throw error.code === "ENOENT" && !given.endsWith(".json")
      ? new UsageError(
          `there is no ${what} "${given}"; give a ${what} file or one of ${known.map(({ id }) => id).join(", ")}`,
        )
      : new Error(
          error.code === "ENOENT"
            ? `There is no file ${given}.`
            : `${given} cannot be read: ${error.message}`,
        );
  });
  return read(text);
}
