import type { TonePair } from "@/core/measure/tone-pair";
import type { Section } from "@/core/programme/programme";
import type { WideBand } from "./wide-band";

/** A tone band of a tape as it was heard. */
export interface ToneBand {
  /** Its place on the tape, from 0. */
  index: number;
  band: Section;
  startSeconds: number;
  endSeconds: number;
  pair: TonePair;
}

/** What was measured of a tape. */
export interface HeardBands {
  bands: ToneBand[];
  /** Sweeps and noises. */
  wide: WideBand[];
  /** Speed of the tape relative to right; 1 when no tone tells. */
  speedRatio: number;
}
