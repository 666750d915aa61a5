import type { SideFinding } from "@/core/live/find-sides";
import type { LoopBack } from "@/core/live/loop-back";
import type { ListeningResult } from "@/core/live/listening-result";
import type { WatchedBefore } from "@/core/measure/watch-log";
import type { RecordingRun } from "@/core/records/recording-run";
import type { RatePoint } from "@/core/measure/rate-points";
import type { TransportEvent } from "@/core/measure/transport-events";
import type { HeadTracks } from "@/core/playback/azimuth-view";
import type { MeasuredAs } from "@/core/recordings/measure-for-bench";
import type { FileMeasurement } from "@/core/recordings/file-measurement";
import type { Followed } from "@/core/playback/source-and-tape";
import type { BlankTape } from "@/core/records/blank-tape";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { Sequence } from "@/core/signals/sequence";
import type { DeckKey, DeckStatus, DeckSwitches, Way } from "@/core/simulator/deck-status";
import type { TapeType } from "@/core/standards/tape-types";
import type { TransportParameters } from "@/core/simulator/transport-parameters";

/** A trimmer of the practice machine: where its slot points, and whether it would go no farther. */
export interface SlotState {
  slotTurns: number;
  atStop: boolean;
}

export interface PracticeState {
  trimmers: SlotState[];
  deck: DeckStatus;
}

/** What is listened for in any live source. */
export interface ListenFor {
  tape: ReferenceTape;
  /** Tape speed of the machine over that of the tape. */
  speedFactor: number;
  nominalHz: number;
  evidenceSeconds: number;
  /** Of the playback head; null for the usual ones of the tape speed. */
  tracks: HeadTracks | null;
  /** What else may be played, told by its marks. */
  sequences: readonly Sequence[];
}

export interface PracticeStart {
  parameters: TransportParameters;
  seed: number;
  /** Where the slot of each trimmer was left. */
  turnedTo: number[];
  /** What was done to it, by the names of `usual-work`. */
  done: string[];
  switches: DeckSwitches;
  /** Seconds of tape in a second, as far as the computer keeps up. */
  pace: number;
  /** The recording that it was left at; null to play its reference tape. */
  goesOn: GoesOn | null;
}

/** A recording that the practice machine was left at. */
export interface GoesOn {
  key: "record" | "record-reverse";
  /** Null is an ordinary blank tape. */
  blank: BlankTape | null;
  /** What goes in; null is silence. */
  sequence: Sequence | null;
  side: 0 | 1;
  positionSeconds: number;
  recordingSeconds: number;
  warmSeconds: number;
  monitor: "source" | "tape";
}

export interface InputStart {
  sampleRateHz: number;
  channelCount: number;
  /** How fast the device's clock is known to be. */
  clockPpm: number;
}

/** What is wanted of a live source at the station that is worked at. */
export interface Wanted {
  flutter: boolean;
  /** Role of the bands whose tones are collected; null for none. */
  role: string | null;
  /** What is followed into a recorder and back; null for nothing. */
  follows: Followed | null;
  /** The marked sequence whose passes are measured; null for none. */
  sequence: string | null;
  /** Whether a recording is watched, and what was watched of it before; null for no. */
  recording: { from: KeptRun | null } | null;
  /** Whether noise is measured, while nothing plays or nothing but faint tones do; null for no. */
  quiet: "silence" | "faint tones" | null;
  /** Whether a blanking test may be listened for. */
  blanking: boolean;
  /** Whether crackles of a control may be counted. */
  controls: boolean;
  /** Whether the tick of a mechanism is listened for. */
  ticks: boolean;
  /** Whether it may be timed how long a mechanism runs. */
  wind: boolean;
}

/** A watched recording from before the page was loaded anew. */
export interface KeptRun {
  run: RecordingRun;
  /** When it was heard last, milliseconds since 1970; null where nothing went on meanwhile. */
  heardAt: number | null;
}

export const NOTHING_WANTED: Wanted = {
  flutter: false,
  role: null,
  follows: null,
  sequence: null,
  recording: null,
  quiet: null,
  blanking: false,
  controls: false,
  ticks: false,
  wind: false,
};

/**
 * What a listening worker does for one session. It listens to one source from its start to its end: another source has
 * another worker.
 */
export interface ListenerApi {
  /** Starts the practice machine with the tape of `listenFor` in it, playing. */
  startPractice(
    start: PracticeStart,
    listenFor: ListenFor,
    onResult: (result: ListeningResult, deck: DeckStatus) => void,
  ): Promise<PracticeState>;
  turnPractice(trimmer: number, turns: number): Promise<PracticeState>;
  /** Does work on the practice machine, if it has what that mends. */
  repairPractice(work: string): Promise<void>;
  pressKey(key: DeckKey): Promise<PracticeState>;
  /** Puts in another tape; null is a blank one. */
  loadTape(tape: ReferenceTape): Promise<PracticeState>;
  /** A tape to record on; null for an ordinary one. */
  loadBlank(blank: BlankTape | null): Promise<PracticeState>;
  /** Winds to where a side begins at once: the one that plays forwards, or the one that plays in reverse. */
  windToStart(way: Way): Promise<PracticeState>;
  turnSide(): Promise<PracticeState>;
  resetCounter(): Promise<PracticeState>;
  /** What is recorded the next time record is pressed. */
  chooseInput(sequence: Sequence | null): Promise<void>;
  /** Measures blocks of one Float32Array per channel that arrive on the port with their first sample's number. */
  startInput(
    port: MessagePort,
    start: InputStart,
    listenFor: ListenFor,
    onResult: (result: ListeningResult) => void,
    /** Nothing has arrived for a second. */
    onStall: () => void,
  ): Promise<void>;
  want(wanted: Wanted): Promise<void>;
  /** The other direction plays, or another head: what was collected does not belong to it. */
  clearPlayback(): Promise<void>;
  /** What is quiet from now on is something else. */
  forgetQuiet(): Promise<void>;
  /** Listens for an old programme that goes quiet, from now on. */
  beginBlanking(): Promise<void>;
  beginControls(): Promise<void>;
  /** The how manyeth time it is; null without a source. */
  beginWind(): Promise<number | null>;
  /** The last seconds of what was heard, at most half a minute, as a 24-bit WAV file; null before anything was. */
  clip(seconds: number): Promise<{ wav: Uint8Array; seconds: number } | null>;
  /** The search for the loudest point begins anew. */
  clearHold(): Promise<void>;
  /** By hand: what is heard is the source, or the tape; null leaves it to be found out. */
  sayHears(what: "source" | "tape" | null): Promise<void>;
  /** What the practice machine's monitor gives while it records, three heads only. */
  monitor(what: "source" | "tape"): Promise<PracticeState>;
  /** Of the practice machine, the type of tape that its switch stands at; null while it feels the shell. */
  setTapeSwitch(type: TapeType | null): Promise<PracticeState>;
  /** Works the switches of the practice machine. */
  setSwitches(wanted: DeckSwitches): Promise<PracticeState>;
  /** Begins or ends the log of a long run. */
  /** @param before a run that is gone on with; null for a new one */
  watch(wanted: boolean, before: WatchedBefore | null): Promise<void>;
  /** What was found in a stretch of a long run. */
  noteTransport(events: TransportEvent[], spectrum: RatePoint[]): Promise<void>;
  /** Something was turned just now; resolves to how often that was told, as later results have it. */
  mark(): Promise<number>;
  /** The last seconds as a 24-bit WAV file; null when nothing is kept. */
  evidence(): Promise<{ wav: Uint8Array; seconds: number } | null>;
  /** Judges the last seconds as a tone of `toneHz` followed by silence. */
  loopBack(toneHz: number): Promise<LoopBack>;
  /** Judges the last second of a tone on one side; rejects with a sentence when it cannot. */
  findSides(): Promise<SideFinding>;
  /** Rejects with a sentence for a file that cannot be read. */
  measureFile(file: File, as: MeasuredAs, onProgress: (share: number) => void): Promise<FileMeasurement>;
  /** Stops, and resolves when everything that was recorded is kept; the worker may be ended then. */
  finish(): Promise<void>;
}
