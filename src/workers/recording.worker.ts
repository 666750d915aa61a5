import "./without-eval";
import { bytesOfBlob } from "@/core/formats/blob-bytes";
import { openSound } from "@/core/formats/open-sound";
import { soundInMemory } from "@/core/formats/sound-file";
import { measureRecording, type RecordingReport } from "@/core/recordings/measure-recording";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { Sequence } from "@/core/signals/sequence";
import { seldom } from "./now-and-then";
import { serve } from "./serve";

export interface RecordingApi {
  /**
   * Measures one recording; `decoded` is for what the browser had to decode as a whole. Null when cancelled; rejects
   * with a sentence for a file that cannot be read.
   */
  measure(
    from: File | { sampleRateHz: number; channels: Float32Array[] },
    tape: ReferenceTape | null,
    sequences: Sequence[],
    onProgress: (share: number) => void,
  ): Promise<RecordingReport | null>;
  cancel(): Promise<void>;
}

let cancelled = false;

const api: RecordingApi = {
  async measure(from, tape, sequences, onProgress) {
    cancelled = false;
    const sound =
      from instanceof File
        ? await openSound(bytesOfBlob(from))
        : soundInMemory(from.channels, from.sampleRateHz);
    return measureRecording(sound, {
      tape,
      sequences,
      cancelled: () => cancelled,
      onProgress: seldom(onProgress),
    });
  },

  async cancel() {
    cancelled = true;
  },
};

serve(api);
