import { inForce } from "@/core/records/job-records";
import type { Reading } from "@/core/records/reading";

/** Speed error with the pitch control at either end, percent; null where that was not read. */
export interface PitchRange {
  slowest: number | null;
  fastest: number | null;
}

/** The latest readings at the ends of the pitch control at one tape speed; null when there are none. */
export function pitchRange(readings: Reading[], speedCmPerS: number): PitchRange | null {
  const at = (pitch: "slowest" | "fastest") =>
    inForce(readings).findLast(
      ({ quantity, context }) =>
        quantity === "speedError" && context.pitch === pitch && context.speedCmPerS === speedCmPerS,
    )?.value ?? null;
  const range = { slowest: at("slowest"), fastest: at("fastest") };
  return range.slowest === null && range.fastest === null ? null : range;
}
