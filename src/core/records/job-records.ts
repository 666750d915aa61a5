import type { Adjustment } from "./adjustment";
import type { BlankTape } from "./blank-tape";
import type { Job } from "./job";
import type { Machine } from "./machine";
import type { Reading } from "./reading";
import type { Part } from "@/core/workshop/part";
import type { StripEntry } from "@/core/workshop/strip-entry";

/** A job with its machine and everything that was logged in it. */
export interface JobRecords {
  job: Job;
  machine: Machine;
  /** The tapes to record on that it is set for, or that its readings name; none when left out. */
  blanks?: readonly BlankTape[];
  readings: Reading[];
  adjustments: Adjustment[];
  /** Parts that it needs; none when left out. */
  neededParts?: readonly Part[];
  /** What was taken off the machine; nothing when left out. */
  stripDown?: readonly StripEntry[];
}

/** What of a job tells which parts it needs. */
export type JobParts = Pick<JobRecords, "job" | "machine" | "neededParts">;

/** What of a list still counts, as it was when it was asked for last: a result that comes in asks many times. */
const counted = new WeakMap<readonly object[], { length: number; inForce: readonly object[] }>();

/**
 * The records that still count: those that no later one supersedes, oldest first.
 * @param records to which one may be added, but which are never changed
 */
export function inForce<T extends { id: string; at: string; supersedes: string | null }>(
  records: readonly T[],
): readonly T[] {
  const before = counted.get(records);
  if (before?.length === records.length) return before.inForce as readonly T[];
  const superseded = new Set(records.map((record) => record.supersedes));
  const found = records
    .filter((record) => !superseded.has(record.id))
    .sort((a, b) => a.at.localeCompare(b.at) || a.id.localeCompare(b.id));
  counted.set(records, { length: records.length, inForce: found });
  return found;
}
