import { useEffect, useRef, useState } from "react";
import type { ExportOptions } from "@/core/formats/wav-export";
import type { Sequence } from "@/core/signals/sequence";
import type { ExportApi } from "@/workers/export.worker";
import { callback, startExport, type WorkerOf } from "@/workers/start-worker";
import { downloadBlob } from "../job/download";

/** Writes sequences as WAV files in a worker of the page, one at a time. */
export function useExport() {
  const worker = useRef<WorkerOf<ExportApi> | null>(null);
  /** How much is written; null while nothing is. */
  const [share, setShare] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);

  useEffect(
    () => () => {
      worker.current?.end();
      worker.current = null;
    },
    [],
  );

  const write = async (sequence: Sequence, options: ExportOptions) => {
    const mine = startExport();
    worker.current = mine;
    const still = () => worker.current === mine;
    setTrouble(null);
    setShare(0);
    try {
      const file = await mine.api.write(
        sequence,
        options,
        callback((done: number) => still() && setShare(done)),
      );
      if (file && still()) downloadBlob(`unzel-${sequence.id}.wav`, file);
    } catch (error) {
      if (still()) setTrouble(`The file was not written: ${(error as Error).message}`);
    } finally {
      mine.end();
      if (still()) {
        worker.current = null;
        setShare(null);
      }
    }
  };

  return { share, trouble, write, cancel: () => void worker.current?.api.cancel() };
}
