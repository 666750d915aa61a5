import type { HeardSegment } from "./heard-segment";

/** Where a section of a programme was heard. */
export interface RecognisedSection {
  /** Its place in the programme, from 0. */
  index: number;
  startSeconds: number;
  endSeconds: number;
  /** When a sweep would have begun, had all of it been heard; of others the same as `startSeconds`. */
  beginsSeconds: number;
  frequencyHz: number;
  /** As loud as it was heard, dBFS; null when it was told by marks alone. */
  levelDb: { left: number; right: number } | null;
}

/** What was heard of a programme. */
export interface Recognition {
  /** Each section once, in playing order: of several plays the one that is heard longest, or whole, and last. */
  sections: RecognisedSection[];
  /** Other plays of the same sections: before a rewind, or pieces of one that was interrupted. */
  repeats: RecognisedSection[];
  /** Speed as its tones or marks say, relative to right; null when nothing was recognised. */
  speedRatio: number | null;
  /** Steady tones that belong to none of its sections. */
  strangers: HeardSegment[];
  /** Why this can hardly be the programme that was chosen; null when it may be. */
  doubt: string | null;
}
