import { id, time } from "@/core/text/id-and-time";
import { MOST_ENTRIES, text } from "@/core/text/limits";
import * as z from "@/core/text/zod";

/** What comes off a machine, in the order of its keys. */
export const STRIP_KINDS = [
  "assembly",
  "screw",
  "washer",
  "spring",
  "clip",
  "ball",
  "wire",
  "belt",
  "slotted position",
  "other part",
] as const;
export type StripKind = (typeof STRIP_KINDS)[number];

export const TROUBLES = ["missing", "broken"] as const;
export type Trouble = (typeof TROUBLES)[number];

/** One thing that was taken off or undone, in the order in which it was: reassembly is the same list backwards. */
export const stripEntrySchema = z.object({
  id,
  jobId: id,
  at: time,
  /** Counts up within a job, whatever the clock says. */
  place: z.number().int().min(1).max(100_000),
  /** The assembly that it was taken from, an entry of its own; null for the machine itself. */
  inside: id.nullable(),
  kind: z.enum(STRIP_KINDS),
  /** In one line, as it was typed. */
  line: text,
  pictures: z.array(id).max(MOST_ENTRIES).default([]),
  /** Of an assembly: since when all that is to come off is off. */
  apartAt: time.nullable().default(null),
  /** Since when it is back in its place. */
  fittedAt: time.nullable().default(null),
  /** What was found when it was to go back. */
  trouble: z
    .object({ what: z.enum(TROUBLES), at: time })
    .nullable()
    .default(null),
  updatedAt: time,
});
export type StripEntry = z.infer<typeof stripEntrySchema>;
