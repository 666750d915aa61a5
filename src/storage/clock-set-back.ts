import type { Adjustment } from "@/core/records/adjustment";
import type { Reading } from "@/core/records/reading";
import { database } from "./database";

interface Entries {
  readings: Reading[];
  adjustments: Adjustment[];
}

/**
 * Entries of a job are ordered by their moment, and that never runs backwards: where the clock of the computer stands
 * before the last entry of the job, the new ones go on from there, as far apart as they were, and what the clock said
 * is kept beside it. To be called in the transaction that stores them. A correction keeps the moment of what it corrects.
 */
export async function inOrder(jobId: string, entries: Entries, wallMs: number): Promise<Entries> {
  const last = await lastMoment(jobId);
  const moments = [...entries.readings, ...entries.adjustments]
    .filter(({ supersedes }) => supersedes === null)
    .map(({ at }) => Date.parse(at));
  const offset = await offsetFor(jobId, last, wallMs, Math.min(wallMs, ...moments));
  if (offset === 0) return entries;
  const moved = <T extends Reading | Adjustment>(entry: T): T =>
    entry.supersedes === null
      ? { ...entry, at: new Date(Date.parse(entry.at) + offset).toISOString(), clockSaid: entry.at }
      : entry;
  return { readings: entries.readings.map(moved), adjustments: entries.adjustments.map(moved) };
}

/** The moment of the last entry of a job, in milliseconds since 1970; −∞ before there is one. */
async function lastMoment(jobId: string): Promise<number> {
  const range = [
    [jobId, ""],
    [jobId, "\uffff"],
  ];
  const last = await Promise.all(
    [database.readings, database.adjustments].map((table) =>
      table.where("[jobId+at]").between(range[0], range[1]).last(),
    ),
  );
  return Math.max(...last.map((one) => (one ? Date.parse(one.at) : -Infinity)));
}

/**
 * By how much what the clock says is moved on: the same from entry to entry, so that they stay as far apart as they were.
 * @param firstMs the first moment that is told of: seconds may pass until it is stored, on a machine that is busy
 */
async function offsetFor(jobId: string, last: number, wallMs: number, firstMs: number): Promise<number> {
  const id = flagId(jobId);
  if (wallMs >= last) {
    await forgetClock(jobId);
    return 0;
  }
  const kept = Number((await database.flags.get(id))?.value ?? 0);
  const offset = wallMs + kept >= last ? kept : last + AFTER_MS - firstMs;
  if (offset !== kept) await database.flags.put({ id, value: String(offset) });
  return offset;
}

/** So long after the last entry do they go on. */
const AFTER_MS = 1000;

const flagId = (jobId: string) => `clock-${jobId}`;

/** What is kept of the clock for a job, forgotten. */
export const forgetClock = (jobId: string): Promise<void> => database.flags.delete(flagId(jobId));
