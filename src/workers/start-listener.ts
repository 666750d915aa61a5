import * as Comlink from "comlink";
import type { ListenerApi } from "./listener-api";

export interface Listener {
  api: Comlink.Remote<ListenerApi>;
  end(): void;
}

/** A worker of its own for one bench; `end` it when the bench is left. */
export function startListener(): Listener {
  const worker = new Worker(new URL("./listener.worker.ts", import.meta.url), { type: "module" });
  const api = Comlink.wrap<ListenerApi>(worker);
  return {
    api,
    end: () => {
      api[Comlink.releaseProxy]();
      worker.terminate();
    },
  };
}

export const callback = Comlink.proxy;
export const handOver = Comlink.transfer;
