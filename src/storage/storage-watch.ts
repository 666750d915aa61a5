import { database } from "./database";

/** What happened to the storage under this page. */
export type StorageLoss = "deleted" | "newer version";

/**
 * Tells when the storage is deleted, or upgraded by another page, while this one is open. One that the browser closes is
 * opened anew by itself.
 */
export class StorageWatch {
  private loss: StorageLoss | null = null;
  private readonly listeners = new Set<() => void>();

  constructor(watched: typeof database) {
    watched.on("versionchange", ({ newVersion }) => {
      this.loss = newVersion ? "newer version" : "deleted";
      for (const listener of this.listeners) listener();
    });
  }

  readonly now = (): StorageLoss | null => this.loss;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
}

export const storageWatch = new StorageWatch(database);
