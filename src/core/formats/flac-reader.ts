import { FLACDecoder } from "@wasm-audio-decoders/flac";
import type { ByteSource } from "./byte-source";
import { requireSampleRate, SoundFileError, type SoundFile } from "./sound-file";

/** Fed to the decoder at a time: digital silence packs a thousand to one, so a small piece can be long. */
const PIECE_BYTES = 16 * 1024;
const STREAM_INFO = 0;
const LAST_BLOCK = 0x80;

/**
 * Opens a native FLAC file of 4 to 24 bits (RFC 9639); a tag block in front of it is stepped over. Samples
 * come out as the integers that went in, so a FLAC and a WAV of one sound give the same numbers.
 * @throws SoundFileError for anything that is not such a file
 */
export async function openFlac(source: ByteSource): Promise<SoundFile> {
  const start = await tagLength(source);
  const head = await source.read(start, 4 + 4 + 34);
  if (String.fromCharCode(...head.subarray(0, 4)) !== "fLaC")
    throw new SoundFileError(
      "This is not a FLAC file: it does not begin with the FLAC mark. Save the recording as FLAC or WAV and try again.",
    );
  if (head.length < 42 || (head[4] & ~LAST_BLOCK) !== STREAM_INFO)
    throw new SoundFileError(
      "The FLAC file does not say what it holds: its first block is missing or cut short. Copy it again.",
    );
  const v = new DataView(head.buffer, head.byteOffset + 8, 34);
  const packed = v.getUint32(10);
  const sampleRateHz = packed >>> 12;
  const channelCount = ((packed >>> 9) & 7) + 1;
  const bitsPerSample = ((packed >>> 4) & 31) + 1;
  const claimedFrames = (packed & 15) * 2 ** 32 + v.getUint32(14);
  requireSampleRate("FLAC", sampleRateHz);
  if (bitsPerSample > 24)
    throw new SoundFileError(
      `The FLAC file has ${bitsPerSample} bits a sample; up to 24 can be read. Export it as WAV.`,
    );

  const warnings: string[] = [];
  const blocks = async function* (): AsyncGenerator<Float64Array[]> {
    warnings.length = 0;
    let frames = 0;
    let damaged = 0;
    for await (const { channels, errors } of decode(source, start, { sampleRateHz, channelCount })) {
      damaged += errors;
      if (channels.length === 0) continue;
      frames += channels[0].length;
      yield channels.map((channel) => asWritten(channel, bitsPerSample));
    }
    if (frames === 0)
      throw new SoundFileError(
        "The FLAC file holds no sound that can be decoded. It is damaged; copy or export it again.",
      );
    if (damaged > 0)
      warnings.push(`${damaged} damaged places in the FLAC file were left out; times after them are early.`);
    if (claimedFrames > 0 && frames !== claimedFrames)
      warnings.push(
        `The file says it holds ${claimedFrames} samples, but ${frames} could be decoded; what is there was used.`,
      );
  };
  let frameCount = claimedFrames;
  if (frameCount === 0) for await (const [first] of blocks()) frameCount += first.length;
  return {
    sampleRateHz,
    channelCount,
    kind: "integer",
    bitsPerSample,
    frameCount,
    durationSeconds: frameCount / sampleRateHz,
    warnings,
    blocks,
  };
}

/** The decoder divides by the largest positive sample; undone exactly, since every integer fits a float. */
function asWritten(channel: Float32Array, bits: number): Float64Array {
  const largest = 2 ** (bits - 1) - 1;
  return Float64Array.from(channel, (sample) => Math.round(sample * largest) / (largest + 1));
}

async function* decode(
  source: ByteSource,
  start: number,
  info: { sampleRateHz: number; channelCount: number },
): AsyncGenerator<{ channels: Float32Array[]; errors: number }> {
  const decoder = new FLACDecoder();
  try {
    await decoder.ready;
    for (let at = start; at <= source.size; at += PIECE_BYTES) {
      const ending = at + PIECE_BYTES > source.size;
      // the decoder may look into the buffer later: it gets its own copy
      const piece = new Uint8Array(await source.read(at, PIECE_BYTES));
      let decoded = piece.length > 0 ? await decoder.decode(piece) : null;
      if (decoded) yield checked(decoded, info);
      if (ending) {
        decoded = await decoder.flush();
        yield checked(decoded, info);
      }
    }
  } catch (error) {
    if (error instanceof SoundFileError) throw error;
    throw new SoundFileError("The FLAC file is damaged and cannot be decoded. Copy or export it again.");
  } finally {
    decoder.free();
  }
}

type Decoded = Awaited<ReturnType<InstanceType<typeof FLACDecoder>["decode"]>>;

function checked(
  { channelData, samplesDecoded, sampleRate, errors }: Decoded,
  info: { sampleRateHz: number; channelCount: number },
): { channels: Float32Array[]; errors: number } {
  if (samplesDecoded === 0) return { channels: [], errors: errors.length };
  if (sampleRate !== info.sampleRateHz || channelData.length !== info.channelCount)
    throw new SoundFileError(
      "The FLAC file changes its sample rate or channels on the way. It is damaged; export it again.",
    );
  return { channels: channelData, errors: errors.length };
}

/** Length of an ID3v2 tag in front of the sound, 0 without one. */
async function tagLength(source: ByteSource): Promise<number> {
  const head = await source.read(0, 10);
  if (head.length < 10 || String.fromCharCode(...head.subarray(0, 3)) !== "ID3") return 0;
  return 10 + head.subarray(6, 10).reduce((size, byte) => size * 128 + (byte & 127), 0);
}
