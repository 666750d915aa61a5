import type { Adjustment } from "./adjustment";
import type { Reading } from "./reading";

/** Clocks of two computers, or of one that was corrected by the network, may be so far apart. */
const UNREMARKABLE_MS = 120_000;

/** The moment of the last entry of a job, in milliseconds since 1970; −∞ before there is one. */
export function lastEntryMs({
  readings,
  adjustments,
}: {
  readings: readonly Reading[];
  adjustments: readonly Adjustment[];
}): number {
  let last = -Infinity;
  for (const entries of [readings, adjustments])
    for (const { at } of entries) last = Math.max(last, Date.parse(at));
  return last;
}

/**
 * Says so when the clock stands before the last entry of a job: it was set back, or the entry was made by one that was
 * fast. Null where it is as it should be.
 */
export function clockSetBack(lastMs: number, nowMs: number): string | null {
  const behind = lastMs - nowMs;
  if (!(behind > UNREMARKABLE_MS)) return null;
  return `The clock of this computer stands ${spanText(behind)} before the last entry of this job. New entries keep their order after it, but their dates cannot be trusted: set the clock right.`;
}

function spanText(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  const [days, hours] = [Math.floor(minutes / 1440), Math.floor((minutes % 1440) / 60)];
  if (days > 0) return `${days} d ${hours} h`;
  return hours > 0 ? `${hours} h ${minutes % 60} min` : `${minutes} min`;
}
