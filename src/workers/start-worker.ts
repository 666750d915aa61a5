import type { ThinkingApi } from "./thinking.worker";
import * as Comlink from "comlink";
import type { ComparisonApi } from "./comparison.worker";
import type { ListenerApi } from "./listener-api";
import type { PlayerApi } from "./player.worker";
import type { RecordingApi } from "./recording.worker";

export interface WorkerOf<Api> {
  api: Comlink.Remote<Api>;
  end(): void;
}
export type Listener = WorkerOf<ListenerApi>;

function wrapped<Api>(worker: Worker): WorkerOf<Api> {
  const api = Comlink.wrap<Api>(worker);
  return {
    api,
    end: () => {
      api[Comlink.releaseProxy]();
      worker.terminate();
    },
  };
}

/** A worker of its own for one source; let it `finish` and `end` it with its session. */
export const startListener = (): Listener =>
  wrapped(new Worker(new URL("./listener.worker.ts", import.meta.url), { type: "module" }));

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
  wrapped(new Worker(new URL("./player.worker.ts", import.meta.url), { type: "module" }));

/** A worker that measures recordings, one after the other. */
export const startRecordingMeter = (): WorkerOf<RecordingApi> =>
  wrapped(new Worker(new URL("./recording.worker.ts", import.meta.url), { type: "module" }));

/** A worker that compares recordings of music. */
export const startComparison = (): WorkerOf<ComparisonApi> =>
  wrapped(new Worker(new URL("./comparison.worker.ts", import.meta.url), { type: "module" }));

/** A worker that thinks out what takes its time. */
export const startThinking = (): WorkerOf<ThinkingApi> =>
  wrapped(new Worker(new URL("./thinking.worker.ts", import.meta.url), { type: "module" }));

export const callback = Comlink.proxy;
export const handOver = Comlink.transfer;
