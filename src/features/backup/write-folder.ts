import { noteBackup } from "@/storage/backup/last-backup";
import { writeIntoFolder, type FolderHandle } from "@/storage/backup/kept-folder";
import { callback, startBackup } from "@/workers/start-worker";

/** What a backup holds that could not be brought back from it, in a sentence. */
export const notRestorable = (aside: readonly string[]): string =>
  `The backup was written; ${aside.length === 1 ? "one record" : `${aside.length} records`} in it could not be restored: ${aside.slice(0, MOST_NAMED).join("; ")}${aside.length > MOST_NAMED ? " and more" : ""}.`;
const MOST_NAMED = 3;

/** Only one page writes at a time. */
const LOCK = "unzel-backup-folder";

/**
 * Writes everything into the folder that is kept up to date.
 * @returns false where another page is at it
 * @throws Error with a sentence where it cannot be written
 */
export async function writeFolder(handle: FolderHandle): Promise<boolean> {
  return await navigator.locks.request(LOCK, { ifAvailable: true }, async (lock) => {
    if (lock === null) return false;
    const worker = startBackup();
    try {
      const at = new Date().toISOString();
      const progress = callback(() => undefined);
      const { archive, aside } = await worker.api.write(at, progress);
      await writeIntoFolder(handle, at, archive);
      await noteBackup(at);
      if (aside.length > 0) throw new Error(notRestorable(aside));
      return true;
    } finally {
      worker.end();
    }
  });
}
