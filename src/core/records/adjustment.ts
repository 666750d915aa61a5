import * as z from "@/core/text/zod";
import { id, station, text, time } from "./fields";

export const adjustmentSchema = z.object({
  id,
  jobId: id,
  station,
  adjusterId: id,
  /** Clockwise positive; null for work, or when nobody counted; 0 in a correction that takes it back. */
  turns: z.number().min(-100).max(100).nullable(),
  /** It would not go any farther that way. */
  atStop: z.boolean().optional(),
  at: time,
  /** What the clock of the computer said, where that stood before the entry before. */
  clockSaid: time.optional(),
  note: text.default(""),
  supersedes: id.nullable().default(null),
});
export type Adjustment = z.infer<typeof adjustmentSchema>;
