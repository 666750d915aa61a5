import { existsSync } from "node:fs";
import { UsageError } from "./exit";
import { textOfFile } from "./text-file";

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
  if (!given.endsWith(".json") && !existsSync(given))
    throw new UsageError(
      `there is no ${what} "${given}"; give a ${what} file or one of ${known.map(({ id }) => id).join(", ")}`,
    );
  return read(await textOfFile(given));
}
