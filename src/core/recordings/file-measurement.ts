import type { TransportView } from "@/core/advice/transport-view";
import type { SpeedChannel } from "@/core/measure/transport-meter";
import type { FlutterResult } from "@/core/measure/flutter";
import type { OscillatorLine } from "@/core/measure/oscillator-line";
import type { PlaybackNow } from "@/core/playback/playback-now";
import type { RecordingRun } from "@/core/records/recording-run";
import type { ReturnedNow } from "@/core/returned/heard-pass";
import type { SoundFile } from "@/core/formats/sound-file";
import type { Heard } from "@/core/stations/heard";

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
  /** What came back of the sequence that the station listens for; null for other recordings. */
  returned: ReturnedNow | null;
  /** Where the station watches a recording: how long it holds, and bias that is left in it. */
  recording: RecordingRun | null;
  oscillator: OscillatorLine | null;
  /** Where the station listens for a blanking test: what was heard of it, by channel. */
  blanking: Heard["blanking"];
}

/** A file of which nothing was measured yet. */
export const nothingMeasured = (
  name: string,
  {
    sampleRateHz,
    durationSeconds,
    warnings,
  }: Pick<SoundFile, "sampleRateHz" | "durationSeconds" | "warnings">,
): FileMeasurement => ({
  name,
  sampleRateHz,
  durationSeconds,
  warnings,
  channels: [],
  transport: null,
  playback: null,
  returned: null,
  recording: null,
  oscillator: null,
  blanking: null,
});
