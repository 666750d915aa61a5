import { database } from "./database";
import { WatchedValue } from "./watched-value";

/** What happened to the storage under this page. */
export type StorageLoss = "deleted" | "newer version";

/**
 * Tells when the storage is deleted, or upgraded by another page, while this one is open. One that the browser closes is
 * opened anew by itself.
 */
class StorageWatch extends WatchedValue<StorageLoss | null> {
  constructor(watched: typeof database) {
    super(null);
    watched.on("versionchange", ({ newVersion }) => this.change(newVersion ? "newer version" : "deleted"));
  }
}

export const storageWatch = new StorageWatch(database);
