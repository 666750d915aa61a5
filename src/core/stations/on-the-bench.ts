import type { PeakAdvice } from "@/core/guidance/loudest-point";
import type { PlaybackNumbers } from "@/core/playback/playback-numbers";
import type { JobRecords } from "@/core/records/job-records";
import type { Circumstances } from "@/core/records/reading";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { BiasScrews } from "./bias-thought";
import type { Heard } from "./heard";

/** Readings and turns of one earlier job on the machine. */
export type PriorJob = Pick<JobRecords, "readings" | "adjustments">;

/**
 * What the turn card told to turn, from then until the turn is said. What is heard moves while a screw is turned: by
 * then another one may be farthest off, and less is left to turn than was told. The card stays with what it told, so
 * that "I turned it" means the screw that was turned, by what was told.
 */
export interface Told {
  /** What it holds for: the station as it is worked at, and what was last logged there. */
  occasion: string;
  adjusterId: string;
  /** Clockwise positive. */
  turns: number;
  /** The number when it was told first, in its own unit, ±. */
  from: { value: number; uncertainty: number; heardFrom: string };
  /** The number has left that place: it is being turned, or was turned and not said yet. */
  moved: boolean;
}

/** Everything that a station may ask about: the job, the tape in the machine, and what is heard of it. */
export interface OnTheBench {
  /** The whole job. */
  records: JobRecords;
  /** Those of its records that count at the tape speed that is worked at. */
  here: JobRecords;
  tape: ReferenceTape;
  /** Null before a source was started. */
  heard: Heard | null;
  /** Which source of the page that is: each start of one is another. */
  session: number;
  /** What the tones of the tape add up to; null before any was heard. */
  numbers: PlaybackNumbers | null;
  circumstances: Circumstances;
  /** Earlier jobs on the machine, the latest first. */
  prior: readonly PriorJob[];
  /** Where the loudest point is, thought out aside; null before that, and where it is not sought. */
  peak: PeakAdvice | null;
  /** When something was turned or done last that may have moved what a station reads; before everything for never. */
  movedAt(station: string): string;
  /** What is known of its bias screws. */
  screws: BiasScrews;
  /** What the turn card has told to turn; null before that, and since it was said. */
  told: Told | null;
}
