import * as Comlink from "comlink";

/** What every worker answers beside its own work. */
export interface Alive {
  /** Resolves to whether it can be noticed when this worker ends: it holds a lock of its own name as long as it lives. */
  alive(): Promise<boolean>;
}

/** Answers the page from now on. */
export function serve(api: object): void {
  const held = holdLock();
  const served: object & Alive = Object.assign(api, { alive: () => held });
  Comlink.expose(served);
}

/** Browsers know locks on pages of this machine, and on others only over a secure connection. */
function holdLock(): Promise<boolean> {
  const locks = navigator.locks as LockManager | undefined;
  if (!locks || self.name === "") return Promise.resolve(false);
  return new Promise((resolve) => {
    void locks.request(self.name, () => {
      resolve(true);
      return new Promise<never>(() => {});
    });
  });
}
