/**
 * What was typed and is not stored yet, kept at once: a page can be gone before its database has heard of it. Where the
 * browser keeps nothing for this page, what was typed a moment ago goes with it.
 */
const PREFIX = "unzel-typed-";

const storage = (): Storage | null => {
  try {
    return window.localStorage;
  } catch {
    return null;
  }
};

export function keepTyped(key: string, text: string): void {
  try {
    storage()?.setItem(PREFIX + key, text);
  } catch {
    // full: the database will say so
  }
}

/** What was typed under a key and never stored; null where all was. */
export const unstored = (key: string): string | null => storage()?.getItem(PREFIX + key) ?? null;

/** Forgets it once it is stored, unless more was typed since. */
export function nowStored(key: string, text: string): void {
  if (unstored(key) === text) storage()?.removeItem(PREFIX + key);
}

/** Every key that begins like that and has something unstored. */
export const unstoredKeys = (begins: string): string[] =>
  Object.keys(storage() ?? {})
    .filter((name) => name.startsWith(PREFIX + begins))
    .map((name) => name.slice(PREFIX.length));
