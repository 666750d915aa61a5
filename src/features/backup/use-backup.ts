import { useEffect, useRef, useState } from "react";
import type { Change, RestoreWay } from "@/storage/backup/backup";
import { noteBackup } from "@/storage/backup/last-backup";
import type { BackupApi } from "@/workers/backup.worker";
import { callback, startBackup, type WorkerOf } from "@/workers/start-worker";
import type { Outcome } from "@/ui/notice";
import { downloadBlob } from "../job/download";
import { notRestorable } from "./write-folder";

/** A backup that was opened, and what it would change. */
export interface OpenedBackup {
  name: string;
  at: string;
  changes: Change[];
  /** Records of it that cannot be used, by name. */
  aside: string[];
}

interface Busy {
  what: "writing" | "reading" | "restoring";
  share: number;
}

/** Backing up and bringing back, in a worker; one thing at a time. */
export function useBackup() {
  const worker = useRef<WorkerOf<BackupApi> | null>(null);
  const [busy, setBusy] = useState<Busy | null>(null);
  const [opened, setOpened] = useState<OpenedBackup | null>(null);
  const [outcome, setOutcome] = useState<Outcome | null>(null);

  const end = () => {
    worker.current?.end();
    worker.current = null;
  };
  useEffect(() => end, []);

  /** Does one thing; what goes wrong is told, and the worker is another one afterwards. */
  const run = async (what: Busy["what"], work: (api: WorkerOf<BackupApi>["api"]) => Promise<void>) => {
    worker.current ??= startBackup();
    const mine = worker.current;
    setOutcome(null);
    setBusy({ what, share: 0 });
    try {
      await work(mine.api);
    } catch (error) {
      if (worker.current !== mine) return;
      setOutcome({ severity: "error", text: (error as Error).message });
      setOpened(null);
      end();
    } finally {
      setBusy(null);
    }
  };
  const progress = (what: Busy["what"]) => callback((share: number) => setBusy({ what, share }));

  const write = () =>
    run("writing", async (api) => {
      const at = new Date().toISOString();
      const { archive, aside } = await api.write(at, progress("writing"));
      downloadBlob(`unzel-backup-${at.slice(0, 10)}.zip`, archive);
      await noteBackup(at);
      setOutcome(
        aside.length > 0
          ? { severity: "error", text: notRestorable(aside) }
          : {
              severity: "success",
              text: `Everything is in the archive that the browser saved (${(archive.size / 1e6).toFixed(1)} MB); it was opened again and checked. Keep it on another disk.`,
            },
      );
    });

  const open = (file: File) =>
    run("reading", async (api) => {
      setOpened(null);
      setOpened({ name: file.name, ...(await api.read(file, progress("reading"))) });
    });

  const restore = (way: RestoreWay) =>
    run("restoring", async (api) => {
      await api.restore(way);
      setOpened(null);
      setOutcome({
        severity: "success",
        text:
          way === "replace"
            ? "Everything stands as it did in the backup."
            : "What was missing here was brought back; what was here stayed.",
      });
    });

  return {
    busy,
    opened,
    outcome,
    write,
    open,
    restore,
    close: () => setOpened(null),
    hush: () => setOutcome(null),
  };
}
