import type { BlankingChannel } from "@/core/measure/blanking";
import type { ControlTest } from "@/core/measure/control-watch";
import type { FlutterResult } from "@/core/measure/flutter";
import type { OscillatorLine } from "@/core/measure/oscillator-line";
import type { Quiet } from "@/core/measure/quiet";
import type { PlaybackNow } from "@/core/playback/playback-now";
import type { FullScale } from "@/core/playback/playback-level";
import type { SourceAndTape } from "@/core/playback/source-and-tape";
import type { ReturnedNow } from "@/core/returned/heard-pass";
import type { RecordingRun } from "@/core/records/recording-run";
import type { Reading } from "@/core/records/reading";

/** A mean speed as it stands. */
export interface HeardSpeed {
  channel: string;
  errorPercent: number;
  uncertaintyPercent: number;
  seconds: number;
  settled: boolean;
  /** It has been moving one way all the time it was heard. */
  creeps: boolean;
  /** How it stood before it began to move, since the last turn that was told; null when it has not moved. */
  before: { errorPercent: number; uncertaintyPercent: number } | null;
}

export interface HeardFlutter extends FlutterResult {
  channel: string;
  settled: boolean;
}

/** What a source has given so far, whatever it is. */
export interface Heard {
  source: Reading["source"];
  /** Seconds of its sound that pass in one second of the clock; 1 of all but a practice machine that runs faster. */
  pace: number;
  /** Frequency that the tone was compared with; null for the one of the job's tape. */
  nominalHz: number | null;
  /** ± percent of the clock that sampled it; undefined for an uncalibrated sound card. */
  clockPercent?: number;
  /** Level in dBu of a full-scale sine; null where it is not known. */
  fullScale: FullScale | null;
  speed: HeardSpeed | null;
  flutter: HeardFlutter | null;
  /** The tones of the tape; null before any, and of files without. */
  playback: PlaybackNow | null;
  /** What went into a recorder and what came back; null where that is not asked for. */
  comparison: SourceAndTape | null;
  /** What came back of the station's sequence, pass by pass; null before any, and where none is asked for. */
  returned: ReturnedNow | null;
  /** The recording that is watched; null before one began, and where none is asked for. */
  recording: RecordingRun | null;
  /** Noise of what plays nothing, as it stands; null while something does, and where it is not asked for. */
  quiet: Quiet | null;
  /** A blanking test so far, by channel, null where no programme was heard yet; null while none is listened for. */
  blanking: Array<BlankingChannel | null> | null;
  /** A control that is worked, so far; null while none is. */
  controls: ControlTest | null;
  /** At which a tone at 0 came back last, dBFS by channel, kept while the tape is turned over; null where nothing was kept. */
  zeroDbfs: number[] | null;
  /** Noise of the sound card itself, RMS, dBFS; null where nobody measured it. */
  ownNoiseDbfs: number | null;
  /** Bias that is left in what is heard; null where the sample rate does not reach it, or there is none. */
  oscillator: OscillatorLine | null;
  /** The source has gone: what it gave last is shown, and no more is logged of it. */
  gone: boolean;
  /** When a file was dropped in, ISO; null of a live source. */
  droppedAt: string | null;
  /** Why there is no number, or what is doubtful. */
  problems: string[];
}

/** Before anything was heard. */
export const NOTHING_HEARD_YET: Omit<Heard, "source"> = {
  pace: 1,
  nominalHz: null,
  fullScale: null,
  speed: null,
  flutter: null,
  playback: null,
  comparison: null,
  returned: null,
  recording: null,
  quiet: null,
  blanking: null,
  controls: null,
  zeroDbfs: null,
  ownNoiseDbfs: null,
  oscillator: null,
  gone: false,
  droppedAt: null,
  problems: [],
};
