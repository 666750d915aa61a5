import type { LiveResult } from "@/core/measure/live-transport";
import type { SignalReport } from "@/core/measure/signal-findings";
import type { SteadyStretch } from "@/core/measure/steady-stretch";
import type { WatchTrack } from "@/core/measure/watch-log";
import type { HeadTracks } from "@/core/playback/azimuth-view";
import type { PlaybackNow } from "@/core/playback/playback-now";
import type { SourceAndTape } from "@/core/playback/source-and-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { ReturnedNow } from "@/core/returned/heard-pass";
import type { Sequence } from "@/core/signals/sequence";
import type { RecordSideHear } from "./record-side-watch";
import type { BandNow } from "./what-plays";
import type { EarsHear } from "./workshop-ears";

/** All that is known of a live source at a moment. */
export interface ListeningResult extends LiveResult, EarsHear, RecordSideHear {
  /** How often it was told that something was turned. */
  marks: number;
  /** Frequency that the tone is compared with: that of the band that plays. */
  nominalHz: number;
  /** Fresh twice a second, null in between. */
  check: SignalReport | null;
  /** What the guilty parts are to be thought out from; fresh every few seconds, null in between. */
  stretch: SteadyStretch | null;
  /** The long run that is being watched; fresh every two seconds, null in between and while none is. */
  watch: WatchTrack | null;
  /** The tones of the tape, azimuth and response so far; fresh twice a second, null in between. */
  playback: PlaybackNow | null;
  /** What goes into a recorder and what comes back; fresh twice a second, null in between and while not asked for. */
  comparison: SourceAndTape | null;
  /** What was heard of the sequence that is wanted; fresh when that changed, null in between. */
  returned: ReturnedNow | null;
  /** What plays now of the tape or of a sequence; null in between or when nothing was recognised. */
  band: BandNow | null;
  /** The sentence for it when a marked sequence is played: nothing of a reference tape is read from that. */
  sequencePlays: string | null;
  /** Places in the tape's list of the bands that have been heard so far. */
  bandsHeard: number[];
  /** Why the tape in the machine can hardly be the one chosen. */
  tapeDoubt: string | null;
}

export interface ListeningOptions {
  sampleRateHz: number;
  channelCount: number;
  tape: ReferenceTape;
  /** Sequences that may be played instead, told by their marks; none when left out. */
  sequences?: readonly Sequence[];
  /** Tape speed of the machine over that of the tape. */
  speedFactor: number;
  /** Frequency to compare with until a band is recognised. */
  nominalHz: number;
  /** Of the playback head; the usual ones of the tape speed when left out. */
  tracks?: HeadTracks | null;
  /** How much of the past is kept as evidence. */
  evidenceSeconds: number;
  /** Seconds of sound in a second of the clock, by which figures are made anew; 1 when left out. */
  pace?: number;
}
