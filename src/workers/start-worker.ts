import * as Comlink from "comlink";
import type { BackupApi } from "./backup.worker";
import type { ComparisonApi } from "./comparison.worker";
import type { ExportApi } from "./export.worker";
import type { ListenerApi } from "./listener-api";
import type { PictureApi } from "./picture.worker";
import type { PlayerApi } from "./player.worker";
import type { RecordingApi } from "./recording.worker";
import type { Alive } from "./serve";
import type { ThinkingApi } from "./thinking.worker";
import { untilGone } from "./until-gone";

export interface WorkerOf<Api> {
  /** What is asked fails with a sentence when the worker ends by itself, or breaks off in an error. */
  api: Comlink.Remote<Api>;
  /** Rejects with that sentence then; otherwise it stays as it is. */
  died: Promise<never>;
  end(): void;
}
export type Listener = WorkerOf<ListenerApi>;

const DIED =
  "The part of Unzel that listens and measures was ended by the browser, perhaps for want of memory. Close other tabs, then start it again.";

function wrapped<Api>(start: (name: string) => Worker): WorkerOf<Api> {
  const name = `unzel-${crypto.randomUUID?.() ?? Math.random()}`;
  const worker = start(name);
  const remote = Comlink.wrap<Api & Alive>(worker);
  const { api, gone } = untilGone(remote as Comlink.Remote<Api>);
  const ended = new AbortController();
  const died = new Promise<never>((_, reject) => {
    const tell = () => {
      const why = new Error(DIED);
      gone(why);
      reject(why);
    };
    worker.addEventListener("error", tell);
    // its lock is free as soon as it is gone
    const watched = (remote as Comlink.Remote<Alive>).alive().then((holds) => {
      if (holds && !ended.signal.aborted)
        return navigator.locks.request(name, { signal: ended.signal }, tell);
    });
    watched.catch(() => undefined);
  });
  died.catch(() => undefined);
  return {
    api,
    died,
    end: () => {
      ended.abort();
      remote[Comlink.releaseProxy]();
      worker.terminate();
    },
  };
}

/** A worker of its own for one source; let it `finish` and `end` it with its session. */
export const startListener = (): Listener =>
  wrapped((name) => new Worker(new URL("./listener.worker.ts", import.meta.url), { type: "module", name }));

/** Longer than it takes to keep what was recorded. */
const LONGEST_FINISH_MS = 5000;

/** Lets a listener keep what was recorded, and ends it. */
export async function finishListener({ api, end }: Listener): Promise<void> {
  const tooLong = new Promise<void>((resolve) => setTimeout(resolve, LONGEST_FINISH_MS));
  try {
    await Promise.race([api.finish(), tooLong]);
  } finally {
    end();
  }
}

/** A worker that renders what is played. */
export const startPlayer = (): WorkerOf<PlayerApi> =>
  wrapped((name) => new Worker(new URL("./player.worker.ts", import.meta.url), { type: "module", name }));

/** A worker that measures recordings, one after the other. */
export const startRecordingMeter = (): WorkerOf<RecordingApi> =>
  wrapped((name) => new Worker(new URL("./recording.worker.ts", import.meta.url), { type: "module", name }));

/** A worker that writes test sequences as files. */
export const startExport = (): WorkerOf<ExportApi> =>
  wrapped((name) => new Worker(new URL("./export.worker.ts", import.meta.url), { type: "module", name }));

/** A worker that backs everything up and brings it back. */
export const startBackup = (): WorkerOf<BackupApi> =>
  wrapped((name) => new Worker(new URL("./backup.worker.ts", import.meta.url), { type: "module", name }));

/** A worker that compares recordings of music. */
export const startComparison = (): WorkerOf<ComparisonApi> =>
  wrapped((name) => new Worker(new URL("./comparison.worker.ts", import.meta.url), { type: "module", name }));

/** A worker that takes pictures down to a sensible size. */
export const startPictures = (): WorkerOf<PictureApi> =>
  wrapped((name) => new Worker(new URL("./picture.worker.ts", import.meta.url), { type: "module", name }));

/** A worker that thinks out what takes its time. */
export const startThinking = (): WorkerOf<ThinkingApi> =>
  wrapped((name) => new Worker(new URL("./thinking.worker.ts", import.meta.url), { type: "module", name }));

export const callback = Comlink.proxy;
export const handOver = Comlink.transfer;
