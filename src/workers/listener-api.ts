import type { SideFinding } from "@/core/listen/find-sides";
import type { explainResponse, ResponseFindings } from "@/core/advice/response-doctor";
import type { PlaybackNow } from "@/core/listen/playback-now";
import type { HeadTracks } from "@/core/listen/playback-view";
import type { ResponsePoint } from "@/core/measure/response";
import type { ListeningResult } from "@/core/listen/live-listening";
import type { Geometry, TransportView } from "@/core/listen/transport-view";
import type { DeckKey, DeckStatus } from "@/core/machine/practice-deck";
import type { TransportParameters } from "@/core/machine/transport-parameters";
import type { FlutterResult } from "@/core/measure/flutter";
import type { SpeedChannel } from "@/core/measure/transport-meter";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { Sequence } from "@/core/signals/sequence";

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
  geometry: Geometry;
  /** Of the playback head; null for the usual ones of the tape speed. */
  tracks: HeadTracks | null;
}

export interface PracticeStart {
  parameters: TransportParameters;
  seed: number;
  /** Where the slot of each trimmer was left. */
  turnedTo: number[];
  /** What was done to it, by the names of `usual-work`. */
  done: string[];
}

export interface InputStart {
  sampleRateHz: number;
  channelCount: number;
  /** How fast the device's clock is known to be. */
  clockPpm: number;
}

export interface FileChannel {
  channel: string;
  speed: SpeedChannel | null;
  flutter: (FlutterResult & { channel: string; carrierHz: number }) | null;
  warnings: string[];
}

export interface FileMeasurement {
  name: string;
  sampleRateHz: number;
  durationSeconds: number;
  warnings: string[];
  channels: FileChannel[];
  /** Of the channel with the most flutter; null when there is no steady tone. */
  transport: TransportView | null;
  /** Azimuth, level and response, of a tape with several tones; null for others. */
  playback: PlaybackNow | null;
}

/** Harmonics and noise of a device whose output is cabled to its input. */
export interface LoopBack {
  toneDbfs: number;
  noiseDbfs: number;
  secondDb: number;
  thirdDb: number;
}

/** What the listening worker does for the page. One source at a time; starting one stops the other. */
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
  loadTape(tape: ReferenceTape | null): Promise<PracticeState>;
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
  showFlutter(wanted: boolean): Promise<void>;
  /** Whether the tones of the tape are collected, and of which role they are wanted; null for not. */
  showPlayback(role: string | null): Promise<void>;
  /** The other direction plays, or another head: what was collected does not belong to it. */
  clearPlayback(): Promise<void>;
  /** The search for the loudest point begins anew. */
  clearHold(): Promise<void>;
  /** What a response looks like. */
  explain(points: ResponsePoint[], curve: Parameters<typeof explainResponse>[1]): Promise<ResponseFindings>;
  /** Begins or ends the log of a long run. */
  watch(wanted: boolean): Promise<void>;
  /** Something was turned just now; resolves to how often that was told, as later results have it. */
  mark(): Promise<number>;
  /** The last seconds as a 24-bit WAV file; null when nothing is kept. */
  evidence(): Promise<{ wav: Uint8Array; seconds: number } | null>;
  /** Judges the last seconds as a tone of `toneHz` followed by silence. */
  loopBack(toneHz: number): Promise<LoopBack>;
  /** Judges the last second of a tone on one side; rejects with a sentence when it cannot. */
  findSides(): Promise<SideFinding>;
  stop(): Promise<void>;
  /** Null when it was cancelled. Rejects with a sentence for a file that cannot be read. */
  measureFile(
    file: File,
    listenFor: Omit<ListenFor, "evidenceSeconds">,
    onProgress: (share: number) => void,
  ): Promise<FileMeasurement | null>;
  cancelFile(): Promise<void>;
}
