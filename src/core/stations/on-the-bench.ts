import type { PeakAdvice } from "@/core/guidance/loudest-point";
import type { PlaybackNumbers } from "@/core/playback/playback-numbers";
import type { JobRecords } from "@/core/records/job-records";
import type { Circumstances } from "@/core/records/reading";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { Heard } from "./heard";
import type { Told } from "./told";

/** Readings and turns of one earlier job on the machine. */
export type PriorJob = Pick<JobRecords, "readings" | "adjustments">;

/** Everything that a station may ask about: the job, the tape in the machine, and what is heard of it. */
export interface OnTheBench {
  /** The whole job. */
  records: JobRecords;
  /** Those of its records that count at the tape speed that is worked at. */
  here: JobRecords;
  tape: ReferenceTape;
  /** Null before a source was started. */
  heard: Heard | null;
  /** What the tones of the tape add up to; null before any was heard. */
  numbers: PlaybackNumbers | null;
  circumstances: Circumstances;
  /** Earlier jobs on the machine, the latest first. */
  prior: readonly PriorJob[];
  /** Where the loudest point is, thought out aside; null before that, and where it is not sought. */
  peak: PeakAdvice | null;
  /** What the turn card has told to turn; null before that, and since it was said. */
  told: Told | null;
}
