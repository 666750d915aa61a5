import type { Adjustment } from "@/core/records/adjustment";
import { stationById } from "./registry";

/** Whether a turn, or other work, moves what another station reads. */
export const moves = ({ station, turns }: Adjustment, read: string): boolean =>
  turns !== 0 && (stationById(station)?.upsets.includes(read) ?? false);
