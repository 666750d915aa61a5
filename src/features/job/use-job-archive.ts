import { useCallback, useEffect, useRef, useState } from "react";
import type { BackupApi } from "@/workers/backup.worker";
import { callback, startBackup, type WorkerOf } from "@/workers/start-worker";
import { downloadBlob } from "./download";

/** Whether a file begins as a ZIP archive does, whatever it is called. */
export async function isArchive(file: Blob): Promise<boolean> {
  const begins = new Uint8Array(await file.slice(0, 4).arrayBuffer());
  return [0x50, 0x4b, 0x03, 0x04].every((byte, i) => begins[i] === byte);
}

/** Writes and brings in archives of one job, in a worker that ends with the page. */
export function useJobArchive() {
  const worker = useRef<WorkerOf<BackupApi> | null>(null);
  const [share, setShare] = useState<number | null>(null);
  useEffect(() => () => worker.current?.end(), []);

  const run = useCallback(async <T>(work: (api: WorkerOf<BackupApi>["api"]) => Promise<T>): Promise<T> => {
    const mine = startBackup();
    worker.current = mine;
    setShare(0);
    try {
      return await work(mine.api);
    } finally {
      mine.end();
      setShare(null);
    }
  }, []);
  const progress = () => callback((done: number) => setShare(done));

  return {
    /** How far it has come; null while nothing is being done. */
    share,
    write: (jobId: string, name: string) =>
      run(async (api) => downloadBlob(name, await api.writeJob(jobId, new Date().toISOString(), progress()))),
    bring: (file: File) => run((api) => api.bringJob(file, progress())),
  };
}
