import { id, time } from "@/core/text/id-and-time";
import * as z from "@/core/text/zod";

/** Where a part is on its way into a machine. */
export const PART_STATES = ["wanted", "ordered", "fits", "wrong", "away", "back", "fitted"] as const;
export type PartState = (typeof PART_STATES)[number];

export const PART_WORDS: Record<PartState, string> = {
  wanted: "to be ordered",
  ordered: "ordered",
  fits: "arrived, fits",
  wrong: "arrived, wrong",
  away: "sent out for rebuild",
  back: "back from rebuild",
  fitted: "fitted",
};

/** What can become of a part next, the likeliest first. */
export const NEXT_STATES: Record<PartState, readonly PartState[]> = {
  wanted: ["ordered", "away", "fits"],
  ordered: ["fits", "wrong"],
  fits: ["fitted", "wrong"],
  wrong: ["ordered", "away"],
  away: ["back", "wrong"],
  back: ["fitted", "away"],
  fitted: ["wrong"],
};

/** The station waits while a part of it is in one of these. */
const HOLDS_UP: Record<PartState, boolean> = {
  wanted: true,
  ordered: true,
  fits: false,
  wrong: true,
  away: true,
  back: false,
  fitted: false,
};
/** It is under way, and may have a day on which it is expected. */
export const UNDER_WAY: readonly PartState[] = ["ordered", "away"];

const stepSchema = z.object({
  at: time,
  state: z.enum(PART_STATES),
  /** The day on which it is expected. */
  expected: z.iso.date().nullable().default(null),
});

/** A part that a job needs: what for, from where, and how far it has come. */
export const partSchema = z.object({
  id,
  jobId: id,
  name: z.string().trim().min(1, "Name the part.").max(200),
  count: z.number().int().min(1).max(999).default(1),
  /** The station that cannot go on without it. */
  station: z.string().min(1).max(40),
  from: z.string().max(200).default(""),
  /** The entry of the strip-down log that it takes the place of. */
  entryId: id.nullable().default(null),
  /** The drawer of the spare-parts box that it is taken from when it is fitted. */
  spareId: id.optional(),
  /** What became of it, oldest first. */
  steps: z.array(stepSchema).min(1).max(100),
  updatedAt: time,
});
export type Part = z.infer<typeof partSchema>;

export const stateOf = ({ steps }: Part): PartState => steps[steps.length - 1].state;

/** Whether the station that needs it waits for it. */
export const holdsUp = (part: Part): boolean => HOLDS_UP[stateOf(part)];

/** The day on which it is expected; null where it is not under way, or nobody knows. */
export function expectedOn({ steps }: Part): string | null {
  const { state, expected } = steps[steps.length - 1];
  return UNDER_WAY.includes(state) ? expected : null;
}

/** Whether it should have been there. @param today as an ISO date */
export function isOverdue(part: Part, today: string): boolean {
  const expected = expectedOn(part);
  return expected !== null && expected < today;
}

/** How it is said: its name, and how many where more than one. */
export const partName = ({ name, count }: Part): string => (count > 1 ? `${count} × ${name}` : name);
