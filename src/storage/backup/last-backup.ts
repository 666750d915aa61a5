import { database } from "../database";
import { LAST_CHANGED } from "../last-changed";
import { LAST_LOGGED } from "../last-logged";

const LAST_BACKUP = "last-backup";

/** Notes that everything was backed up. */
export const noteBackup = async (at: string): Promise<void> =>
  void (await database.flags.put({ id: LAST_BACKUP, value: at }));

/** When everything was backed up last, and whether anything was changed since; null where it never was. */
export async function lastBackup(): Promise<{ at: string; since: boolean } | null> {
  const at = (await database.flags.get(LAST_BACKUP))?.value;
  if (!at) return null;
  const [logged, changed] = await database.flags.bulkGet([LAST_LOGGED, LAST_CHANGED]);
  return { at, since: [logged, changed].some((flag) => flag !== undefined && flag.value > at) };
}
