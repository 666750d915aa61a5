import { noteBackup } from "@/storage/backup/last-backup";
import { writeIntoFolder, type FolderHandle } from "@/storage/backup/kept-folder";
import { callback, startBackup } from "@/workers/start-worker";

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
      const archive = await worker.api.write(at, progress);
      await writeIntoFolder(handle, at, archive);
      await noteBackup(at);
      return true;
    } finally {
      worker.end();
    }
  });
}
