import { id, time } from "@/core/text/id-and-time";
import * as z from "@/core/text/zod";

const millimetres = z.number().positive().max(5000);

/** A belt that was changed in a job, with what the belt rule said of it. */
export const beltChangeSchema = z.object({
  id,
  at: time,
  /** Which belt of the machine. */
  name: z.string().trim().min(1, "Say which belt it is.").max(80),
  /** The old one when it was new; null where nobody could tell. */
  oldInsideMm: millimetres.nullable(),
  oldThicknessMm: millimetres,
  newInsideMm: millimetres,
  newThicknessMm: millimetres,
  /** Of the new one on its path. */
  stretchPercent: z.number().min(-50).max(100),
  /** What its other thickness does to the speed. */
  predictedPercent: z.number().min(-50).max(50),
});
export type BeltChange = z.infer<typeof beltChangeSchema>;

/** A speed error as it was logged. */
interface Logged {
  at: string;
  value: number;
  uncertainty: number;
}

/** What a belt did to the speed, percent: the first error logged after it less the last one before. */
export interface MeasuredChange {
  percent: number;
  uncertaintyPercent: number;
}

/**
 * @param speeds every speed error of the job, one speed and side, oldest first
 * @param turnedAt when anything was turned that sets the speed: then the belt alone did not make the change
 * @returns null where it was not measured on both sides of the change, or something was turned in between
 */
export function measuredChange(
  { at }: Pick<BeltChange, "at">,
  speeds: readonly Logged[],
  turnedAt: readonly string[],
): MeasuredChange | null {
  const before = speeds.findLast((one) => one.at < at);
  const after = speeds.find((one) => one.at > at);
  if (!before || !after) return null;
  if (turnedAt.some((turned) => turned > before.at && turned < after.at)) return null;
  return {
    percent: after.value - before.value,
    uncertaintyPercent: Math.hypot(before.uncertainty, after.uncertainty),
  };
}
