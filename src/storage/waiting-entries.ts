import type { Adjustment } from "@/core/records/adjustment";
import type { Reading } from "@/core/records/reading";

/** Readings and turns of one moment. */
export interface WaitingEntries {
  readings: Reading[];
  adjustments: Adjustment[];
}

/**
 * Entries that the database does not take are kept beside it, so that they outlive the page: in the browser's small store,
 * which has room where the database has none. Where there is no such store, nothing is kept.
 */
const PREFIX = "unzel-waiting-";

const store = (): Storage | null => {
  try {
    return globalThis.localStorage ?? null;
  } catch {
    return null;
  }
};

export function keepWaiting(id: string, entries: WaitingEntries): void {
  try {
    store()?.setItem(PREFIX + id, JSON.stringify(entries));
  } catch {
    // full as well: they stay on this page, as is shown
  }
}

export const dropWaiting = (id: string): void => store()?.removeItem(PREFIX + id);

/** Every entry that was kept and not stored, under its id; what cannot be read is left where it is. */
export function waitingEntries(): Array<[id: string, entries: unknown]> {
  const kept = store();
  if (!kept) return [];
  const keys = Array.from({ length: kept.length }, (_, i) => kept.key(i) ?? "");
  return keys.flatMap((key): Array<[string, unknown]> => {
    if (!key.startsWith(PREFIX)) return [];
    try {
      return [[key.slice(PREFIX.length), JSON.parse(kept.getItem(key) ?? "")]];
    } catch {
      return [];
    }
  });
}
