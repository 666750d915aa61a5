import type { PracticeDeckOptions } from "@/core/machine/practice-deck";
import type { FlutterResult } from "@/core/measure/flutter";
import type { LiveResult } from "@/core/measure/live-transport";
import type { SpeedChannel } from "@/core/measure/transport-meter";

export interface PracticeState {
  slotTurns: number;
  atStop: boolean;
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
}

/** What the listening worker does for the page. One source at a time; starting one stops the other. */
export interface ListenerApi {
  /** Starts the practice machine with its trimmer at `turnedTo` turns. */
  startPractice(
    options: Omit<PracticeDeckOptions, "sampleRateHz">,
    nominalHz: number,
    turnedTo: number,
    onResult: (result: LiveResult) => void,
  ): Promise<PracticeState>;
  turnPractice(turns: number): Promise<PracticeState>;
  /** Measures blocks of one Float32Array per channel that arrive on the port. */
  startInput(
    port: MessagePort,
    sampleRateHz: number,
    channelCount: number,
    nominalHz: number,
    onResult: (result: LiveResult) => void,
  ): Promise<void>;
  showFlutter(wanted: boolean): Promise<void>;
  /** Something was turned just now. */
  mark(): Promise<void>;
  stop(): Promise<void>;
  /** Null when it was cancelled. Rejects with a sentence for a file that cannot be read. */
  measureFile(
    file: File,
    nominalHz: number,
    onProgress: (share: number) => void,
  ): Promise<FileMeasurement | null>;
  cancelFile(): Promise<void>;
}
