/** What was wrong with a file and what to do about it, in a sentence for the person who chose it. */
export class SoundFileError extends Error {
  override name = "SoundFileError";
}

export type SampleKind = "integer" | "float";

/** A recording that is read from start to end, whatever its coding. */
export interface SoundFile {
  sampleRateHz: number;
  channelCount: number;
  kind: SampleKind;
  bitsPerSample: number;
  frameCount: number;
  durationSeconds: number;
  /** Complete only after the last block: damage may show up on the way. */
  warnings: string[];
  /**
   * The samples from start to end in blocks of one array per channel, full scale = ±1. The arrays may be used
   * again for the next block.
   */
  blocks(framesPerBlock?: number): AsyncGenerator<Float32Array[]>;
}

export const MOST_CHANNELS = 8;

/** @throws SoundFileError for a rate that no recording has */
export function requireSampleRate(kind: string, sampleRateHz: number): void {
  if (sampleRateHz < 1000 || sampleRateHz > 1_000_000)
    throw new SoundFileError(
      `The ${kind} file gives a sample rate of ${sampleRateHz} Hz, which cannot be. It is damaged; export it again.`,
    );
}

/** Sound that was decoded as a whole already. */
export function soundInMemory(channels: Float32Array[], sampleRateHz: number): SoundFile {
  const frameCount = channels[0]?.length ?? 0;
  if (frameCount === 0) throw new SoundFileError("The file holds no sound. Record or export it again.");
  return {
    sampleRateHz,
    channelCount: channels.length,
    kind: "float",
    bitsPerSample: 32,
    frameCount,
    durationSeconds: frameCount / sampleRateHz,
    warnings: [
      "This file may be compressed with loss: speed and flutter can be trusted, response, distortion and noise cannot. Use WAV or FLAC where you can.",
    ],
    async *blocks(framesPerBlock = 32768) {
      for (let at = 0; at < frameCount; at += framesPerBlock)
        yield channels.map((channel) => channel.slice(at, at + framesPerBlock));
    },
  };
}
