import type { Reading } from "@/core/records/reading";
import type { LogContext } from "./log-context";

/** What a station gives the logbook to write. */
export interface StationReadings {
  /** What is logged when somebody asks, or a sentence why nothing can be. */
  toLog(context: LogContext): Reading[] | string;
  /** What shows the last turn, once that has settled; null before, and where turns teach nothing. */
  afterTurn(context: LogContext): Reading[] | null;
  /** What stood before somebody began to turn just now; null when that is not known. */
  beforeTurn(context: LogContext): Reading[] | null;
}

/** A station where nothing was heard yet. */
export const nothingToLog = (why: string): StationReadings => ({
  toLog: () => why,
  afterTurn: () => null,
  beforeTurn: () => null,
});

export const STILL_SETTLING = "Still settling; log when the number is steady.";

/** What is logged, and shows the last turn, as long as nothing is missing. @param lacks what is, in a sentence */
export const unlessLacking = (
  lacks: string | null,
  readings: (context: LogContext) => Reading[],
): StationReadings => ({
  toLog: (context) => lacks ?? readings(context),
  afterTurn: (context) => (lacks === null ? readings(context) : null),
  beforeTurn: (context) => (lacks === null ? readings(context) : null),
});

/** A number that is logged, and shows the last turn, once it has settled. */
export const onceSettled = (
  settled: boolean,
  readings: (context: LogContext) => Reading[],
): Pick<StationReadings, "toLog" | "afterTurn"> => ({
  toLog: (context) => (settled ? readings(context) : STILL_SETTLING),
  afterTurn: (context) => (settled ? readings(context) : null),
});
