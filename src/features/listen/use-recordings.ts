import { useCallback, useEffect, useRef, useState } from "react";
import { decodeSound } from "@/audio/decode-sound";
import type { RecordingReport } from "@/core/recordings/measure-recording";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { everySequence } from "@/storage/sequences";
import { KeptWorker } from "@/workers/kept-worker";
import { callback, startRecordingMeter } from "@/workers/start-worker";

export interface HeardFile {
  id: number;
  file: File;
  tapeId: string | null;
  state:
    | { kind: "waiting" }
    | { kind: "measuring"; share: number }
    | { kind: "done"; report: RecordingReport }
    | { kind: "refused"; why: string }
    | { kind: "cancelled" };
}

/** Files that are read piece by piece; anything else the browser decodes as a whole, if it can. */
const STREAMED = /\.(wav|wave|flac)$/i;

/** Recordings that were dropped, measured one after the other in a worker. */
export function useRecordings() {
  const [files, setFiles] = useState<HeardFile[]>([]);
  const [meter] = useState(() => new KeptWorker(startRecordingMeter));
  const queue = useRef<Array<{ id: number; file: File; tape: ReferenceTape | null }>>([]);
  const busy = useRef<{ id: number; cancelled: boolean } | null>(null);
  const nextId = useRef(1);

  useEffect(
    () => () => {
      queue.current = [];
      if (busy.current) busy.current.cancelled = true;
      meter.end();
    },
    [meter],
  );

  const setState = useCallback(
    (id: number, state: HeardFile["state"]) =>
      setFiles((all) => all.map((one) => (one.id === id ? { ...one, state } : one))),
    [],
  );

  const work = async () => {
    if (busy.current !== null) return;
    for (let job = queue.current.shift(); job; job = queue.current.shift()) {
      const { id, file, tape } = job;
      const mine = (busy.current = { id, cancelled: false });
      setState(id, { kind: "measuring", share: 0 });
      try {
        const from = (await isStreamed(file)) ? file : await decodeSound(file);
        const sequences = await everySequence();
        // a worker that was not asked yet has nothing to cancel
        const report = mine.cancelled
          ? null
          : await meter.api.measure(
              from,
              tape,
              sequences,
              callback((share: number) => setState(id, { kind: "measuring", share })),
            );
        setState(id, report ? { kind: "done", report } : { kind: "cancelled" });
      } catch (error) {
        setState(id, { kind: "refused", why: (error as Error).message });
      }
    }
    busy.current = null;
  };

  const add = (chosen: File[], tape: ReferenceTape | null) => {
    const entries = chosen.map((file) => ({ id: nextId.current++, file, tape }));
    setFiles((all) => [
      ...entries.map(({ id, file }) => ({
        id,
        file,
        tapeId: tape?.id ?? null,
        state: { kind: "waiting" as const },
      })),
      ...all,
    ]);
    queue.current.push(...entries);
    void work();
  };

  const again = (one: HeardFile, tape: ReferenceTape | null) => {
    setFiles((all) =>
      all.map((other) =>
        other.id === one.id ? { ...other, tapeId: tape?.id ?? null, state: { kind: "waiting" } } : other,
      ),
    );
    queue.current.push({ id: one.id, file: one.file, tape });
    void work();
  };

  const cancel = (id: number) => {
    if (busy.current?.id === id) {
      busy.current.cancelled = true;
      void meter.begun?.cancel();
    } else {
      queue.current = queue.current.filter((job) => job.id !== id);
      setState(id, { kind: "cancelled" });
    }
  };

  const remove = (id: number) => {
    cancel(id);
    setFiles((all) => all.filter((one) => one.id !== id));
  };

  return { files, add, again, cancel, remove };
}

async function isStreamed(file: File): Promise<boolean> {
  if (STREAMED.test(file.name)) return true;
  const start = new TextDecoder("latin1").decode(await file.slice(0, 4).arrayBuffer());
  return ["RIFF", "RF64", "BW64", "fLaC"].includes(start) || file.size === 0;
}
