import Dexie, { type DBCore, type Middleware } from "dexie";

/** The flag that says when anything in this browser was changed last. */
export const LAST_CHANGED = "last-changed";
/** What Unzel notes for itself is no change of the workshop. */
const OWN_NOTES = "flags";
const SELDOM_MS = 500;

/**
 * Notes when anything was changed last, whatever it is and whoever changes it, so that a copy of the storage knows that it is
 * behind. It is noted after the change is stored, in a transaction of its own.
 */
export function noteChanges(write: (at: string) => Promise<unknown>): Middleware<DBCore> {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let notedAt = 0;
  const note = () => {
    timer = null;
    notedAt = Date.now();
    Dexie.ignoreTransaction(() => void write(new Date().toISOString()).catch(() => undefined));
  };
  return {
    stack: "dbcore",
    name: "last-changed",
    create: (down) => ({
      ...down,
      table: (name) => {
        const table = down.table(name);
        if (name === OWN_NOTES) return table;
        return {
          ...table,
          mutate: async (request) => {
            const response = await table.mutate(request);
            // not awaited: the change itself must not wait for it, nor fail with it; of many changes not each is noted
            if (Date.now() - notedAt > SELDOM_MS) note();
            else timer ??= setTimeout(note, SELDOM_MS);
            return response;
          },
        };
      },
    }),
  };
}
