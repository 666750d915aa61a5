import type { Adjustment } from "@/core/records/adjustment";
import { inForce } from "@/core/records/job-records";
import { stationById } from "./registry";

/** Whether a turn, or other work, moves what another station reads. */
export const moves = ({ station, turns }: Adjustment, read: string): boolean =>
  turns !== 0 && (stationById(station)?.upsets.includes(read) ?? false);

/** Whether anything was turned or done that was not withdrawn: only then is there an as left beside the as found. */
export const isAnythingTurned = (adjustments: readonly Adjustment[]): boolean =>
  inForce(adjustments).some(({ turns }) => turns !== 0);

/** When something was turned or done last that may have moved what a station reads; before everything for never. */
export const lastMoved = (adjustments: readonly Adjustment[], station: string): string =>
  inForce(adjustments).findLast((one) => moves(one, station))?.at ?? "";
