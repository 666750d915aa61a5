import type { Section } from "@/core/programme/programme";
import type { ToneBand } from "./heard-bands";
import type { AzimuthView } from "./azimuth-view";
import type { ResponseRun } from "./response-runs";

/** A tone of the tape as it was heard last. */
export interface HeardTone extends ToneBand {
  /** Nothing was turned since. */
  fresh: boolean;
  /** When it began to play: what was taken for another band at first has the same. */
  begunSeconds: number;
}

/** The tone that plays now. */
export interface PlayingTone {
  /** Its place on the tape, from 0; negative for a tone that is not on it. */
  index: number;
  frequencyHz: number;
  /** Of the last second, dBFS. */
  levelsDbfs: number[];
  /** The highest that the channels were together since the hold was begun, dBFS. */
  heldDbfs: number;
  /** The level has been higher and lower since, so that the highest may be a peak. */
  peakSeen: boolean;
  /** What the level wanders by, dB. */
  wanderDb: number;
  /** Phase of the last second, degrees; null for one channel. */
  phaseDegrees: number | null;
  /** Phase of each tenth of the last second. */
  phaseTrack: Float64Array;
  /** It has stayed the same for some seconds. */
  settled: boolean;
  /** How it stood before somebody began to turn; null when it has stood as it is since the last turn that was told. */
  before: Stand | null;
}

/** How a tone stood for a while. */
export interface Stand {
  levelsDbfs: number[];
  phaseDegrees: number | null;
}

/** Azimuth in one number. */
export interface PhaseAt10kHz {
  degrees: number;
  uncertaintyDegrees: number;
  /** Standard deviation over tenths of a second. */
  spreadDegrees: number;
  /** Whole cycles are counted in, by the ladder or by having followed the turn. */
  counted: boolean;
  settled: boolean;
}

export interface PlaybackNow {
  tones: HeardTone[];
  playing: PlayingTone | null;
  azimuth: AzimuthView | null;
  phase: PhaseAt10kHz | null;
  /** The response in every way that it was heard. */
  responses: ResponseRun[];
}

/** A tone that was recognised, and where it began. */
export interface ToneNow {
  index: number;
  band: Section;
  startSeconds: number;
  /** Other bands beside it were recognised too, so that it is no other band of the same frequency. */
  sure: boolean;
}
