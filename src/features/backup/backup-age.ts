const DAY_MS = 86_400_000;
/** So many days after the last backup the floor says so, if something was logged since. */
const REMIND_AFTER_DAYS = 14;

type Last = { at: string; since: boolean } | null;

const daysSince = (at: string, now: Date): number =>
  Math.max(0, Math.floor((now.getTime() - Date.parse(at)) / DAY_MS));

/** How old the last backup is, in a sentence. */
export function backupAge(last: Last, now: Date): string {
  if (last === null) return "Nothing was backed up yet.";
  const days = daysSince(last.at, now);
  const age = days === 0 ? "today" : days === 1 ? "yesterday" : `${days} days ago`;
  return `Last backup ${age}; ${last.since ? "something was logged since." : "nothing was logged since."}`;
}

/** What the floor says, calmly; null while there is nothing to say. */
export function backupReminder(last: Last, jobs: number, now: Date): string | null {
  if (jobs === 0) return null;
  if (last === null) return "Nothing was backed up yet: all of it is in this browser only.";
  const days = daysSince(last.at, now);
  return last.since && days >= REMIND_AFTER_DAYS ? `The last backup is ${days} days old.` : null;
}
