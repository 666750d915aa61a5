import type { Job } from "@/core/records/job";
import { clean } from "@/core/stations/clean";
import { decide } from "@/core/workshop/tape-condition";

/**
 * Why nothing is to be measured with a reference tape now: a tape that sheds was played and the path was not cleaned
 * since. Null where nothing speaks against it.
 */
export function whyUnclean({ tapeChecks = [], done }: Pick<Job, "tapeChecks" | "done">): string | null {
  // playing such a tape takes the ticks of cleaning away: what is ticked was done since
  if (clean.checks.every((line) => done[clean.id]?.includes(line))) return null;
  const [last] = tapeChecks
    .filter((one) => one.playedAt !== null && decide(one, one.playedAt).cleanAfter)
    .toSorted((a, b) => b.playedAt!.localeCompare(a.playedAt!));
  return (
    (last &&
      `${last.name} was played and may have left oxide in the path: clean it and tick every line of cleaning before a reference tape goes in. Until then no reading is logged from it.`) ??
    null
  );
}
