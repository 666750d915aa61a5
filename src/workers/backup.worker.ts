import "./without-eval";
import {
  compareBackup,
  readBackup,
  restoreBackup,
  writeBackup,
  type Backup,
  type Change,
  type RestoreWay,
} from "@/storage/backup/backup";
import { seldom } from "./now-and-then";
import { serve } from "./serve";

export interface BackupApi {
  /** Everything in one archive. */
  write(at: string, onProgress: (share: number) => void): Promise<Blob>;
  /** Reads an archive whole and says what it would change; rejects with a sentence for one that cannot be used. */
  read(file: Blob, onProgress: (share: number) => void): Promise<{ at: string; changes: Change[] }>;
  /** Brings back what was read last. */
  restore(way: RestoreWay): Promise<void>;
}

let open: Backup | null = null;

const api: BackupApi = {
  write: (at, onProgress) => writeBackup(at, seldom(onProgress)),

  async read(file, onProgress) {
    open = await readBackup(file, seldom(onProgress));
    return { at: open.at, changes: await compareBackup(open) };
  },

  async restore(way) {
    if (!open) throw new Error("Open a backup first.");
    await restoreBackup(open, way);
  },
};

serve(api);
