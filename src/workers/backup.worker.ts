import "./without-eval";
import {
  compareBackup,
  readBackup,
  restoreBackup,
  writeBackup,
  writeJobArchive,
  type Backup,
  type Change,
  type RestoreWay,
} from "@/storage/backup/backup";
import { seldom } from "./now-and-then";
import { serve } from "./serve";

export interface BackupApi {
  /** Everything in one archive, opened again and checked; with the records that could not be brought back from it. */
  write(at: string, onProgress: (share: number) => void): Promise<{ archive: Blob; aside: string[] }>;
  /** One job in an archive, with its pictures and sounds. */
  writeJob(jobId: string, at: string, onProgress: (share: number) => void): Promise<Blob>;
  /** Reads the archive of one job whole and brings it in beside what is here; rejects with a sentence. Resolves to its number. */
  bringJob(file: Blob, onProgress: (share: number) => void): Promise<string>;
  /** Reads an archive whole and says what it would change; rejects with a sentence for one that cannot be used. */
  read(
    file: Blob,
    onProgress: (share: number) => void,
  ): Promise<{ at: string; changes: Change[]; aside: string[] }>;
  /** Brings back what was read last. */
  restore(way: RestoreWay): Promise<void>;
}

let open: Backup | null = null;

const api: BackupApi = {
  async write(at, onProgress) {
    const progress = seldom(onProgress);
    const archive = await writeBackup(at, (share) => progress(share / 2));
    const { aside } = await readBackup(archive, (share) => progress((1 + share) / 2));
    return { archive, aside };
  },

  writeJob: (jobId, at, onProgress) => writeJobArchive(jobId, at, seldom(onProgress)),

  async bringJob(file, onProgress) {
    const archive = await readBackup(file, seldom(onProgress), "unzel-job-archive");
    await restoreBackup(archive, "merge");
    return (archive.rows.get("jobs") ?? []).map(({ number }) => String(number)).join(", ");
  },

  async read(file, onProgress) {
    open = await readBackup(file, seldom(onProgress));
    return { at: open.at, changes: await compareBackup(open), aside: open.aside };
  },

  async restore(way) {
    if (!open) throw new Error("Open a backup first.");
    await restoreBackup(open, way);
  },
};

serve(api);
