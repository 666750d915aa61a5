import { stereoOfSixteen } from "@/core/dsp/sample-kernel";
import type { ByteSource } from "./byte-source";
import {
  MOST_CHANNELS,
  requireSampleRate,
  SoundFileError,
  type SampleKind,
  type SoundFile,
} from "./sound-file";

const FORMAT_INTEGER = 1;
const FORMAT_FLOAT = 3;
const FORMAT_EXTENSIBLE = 0xfffe;
const SIZE_UNKNOWN = 0xffffffff;
/** A sample of a float file that is no number, or so far over full scale, was never recorded. */
const LOUDEST = 1e6;
const NO_SAMPLES =
  "Samples of the file are no numbers, or far beyond full scale; silence was taken in their place. Export it again.";

/**
 * Opens a WAV file (RIFF, RF64 or BW64; integer of 8, 16, 24 or 32 bits, float of 32 or 64 bits; plain or
 * extensible header; 1 to 8 channels; chunks in any order) without reading more than its headers.
 * A data length that cannot be true is replaced by what the file holds, with a warning.
 * @throws SoundFileError for anything that is not such a file
 */
export async function openWav(source: ByteSource): Promise<SoundFile> {
  if (source.size === 0) throw new SoundFileError("The file is empty. Record or copy it again.");
  const head = await source.read(0, 12);
  const form = ascii(head, 0);
  if (head.length < 12 || !["RIFF", "RF64", "BW64"].includes(form) || ascii(head, 8) !== "WAVE")
    throw new SoundFileError(
      "This is not a WAV file: it does not begin with a RIFF/WAVE header. Save the recording as WAV and try again.",
    );

  const warnings: string[] = [];
  let format: ReturnType<typeof readFormat> | null = null;
  let longSize: number | null = null;
  let data: { offset: number; length: number } | null = null;
  let at = 12;
  while (at + 8 <= source.size && data === null) {
    const chunk = await source.read(at, 8);
    const id = ascii(chunk, 0);
    const length = view(chunk).getUint32(4, true);
    const body = at + 8;
    if (id === "ds64" && length >= 16) {
      const long = view(await source.read(body, 16));
      if (long.byteLength === 16) longSize = Number(long.getBigUint64(8, true));
    } else if (id === "fmt ") {
      format = readFormat(await source.read(body, Math.min(length, 40)));
    } else if (id === "data") {
      data = { offset: body, length: length === SIZE_UNKNOWN && longSize !== null ? longSize : length };
      break;
    }
    at = body + length + (length % 2);
  }
  if (format === null)
    throw new SoundFileError(
      "The WAV file has no format chunk before its sound, so its sound cannot be understood. It is damaged; export it again.",
    );
  if (data === null)
    throw new SoundFileError("The WAV file ends before its sound begins. It is cut short; copy it again.");

  const present = source.size - data.offset;
  const claimed = data.length;
  const open = claimed === SIZE_UNKNOWN || claimed === 0;
  let bytes = claimed;
  if (claimed > present || (open && present > 0)) {
    bytes = present;
    if (!open || claimed === 0)
      warnings.push(
        `The file says it holds ${claimed} bytes of sound, but ${present} are there; what is there was used.`,
      );
  }
  const frameCount = Math.floor(bytes / format.bytesPerFrame);
  if (frameCount === 0) throw new SoundFileError("The WAV file holds no sound. Record or export it again.");
  if (bytes % format.bytesPerFrame !== 0)
    warnings.push("The sound ends in the middle of a sample; the last part was left out.");

  const { offset } = data;
  const { bytesPerFrame, channelCount, sampleRateHz, decode, kind } = format;
  return {
    sampleRateHz,
    channelCount,
    kind,
    bitsPerSample: format.bitsPerSample,
    frameCount,
    durationSeconds: frameCount / sampleRateHz,
    warnings,
    async *blocks(framesPerBlock = 32768) {
      const out = Array.from({ length: channelCount }, () => new Float32Array(framesPerBlock));
      const run = source.readFrom(offset);
      try {
        for (let frame = 0; frame < frameCount; frame += framesPerBlock) {
          const raw = await run.next(Math.min(framesPerBlock, frameCount - frame) * bytesPerFrame);
          const got = Math.floor(raw.length / bytesPerFrame);
          if (got === 0) return;
          decode(raw, got, out);
          if (kind === "float" && silenced(out, got) && !warnings.includes(NO_SAMPLES))
            warnings.push(NO_SAMPLES);
          yield got === framesPerBlock ? out : out.map((channel) => channel.subarray(0, got));
        }
      } finally {
        run.end();
      }
    },
  };
}

/** Takes out what was never recorded. @returns whether there was any */
function silenced(channels: Float32Array[], length: number): boolean {
  let any = false;
  for (const channel of channels)
    for (let i = 0; i < length; i++)
      if (!(Math.abs(channel[i]) <= LOUDEST)) {
        channel[i] = 0;
        any = true;
      }
  return any;
}

const view = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

const ascii = (bytes: Uint8Array, at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));

function readFormat(bytes: Uint8Array) {
  if (bytes.length < 16)
    throw new SoundFileError(
      "The format chunk of the WAV file is too short. It is damaged; export it again.",
    );
  const v = view(bytes);
  const tag = v.getUint16(0, true);
  const channelCount = v.getUint16(2, true);
  const sampleRateHz = v.getUint32(4, true);
  const bits = v.getUint16(14, true);
  const code = tag === FORMAT_EXTENSIBLE && bytes.length >= 26 ? v.getUint16(24, true) : tag;
  if (channelCount === 0)
    throw new SoundFileError("The WAV file says it has no channels. It is damaged; export it again.");
  if (channelCount > MOST_CHANNELS)
    throw new SoundFileError(
      `The WAV file has ${channelCount} channels; up to ${MOST_CHANNELS} can be read.`,
    );
  requireSampleRate("WAV", sampleRateHz);
  const kind: SampleKind | null =
    code === FORMAT_INTEGER ? "integer" : code === FORMAT_FLOAT ? "float" : null;
  const readable =
    (kind === "integer" && [8, 16, 24, 32].includes(bits)) || (kind === "float" && [32, 64].includes(bits));
  if (kind === null || !readable)
    throw new SoundFileError(
      `The WAV file is coded in a way that cannot be read (format ${code}, ${bits} bits). Export it as plain PCM of 16 or 24 bits.`,
    );
  const bytesPerFrame = (bits / 8) * channelCount;
  return {
    channelCount,
    sampleRateHz,
    bitsPerSample: bits,
    kind,
    bytesPerFrame,
    decode: decoder(kind, bits, channelCount),
  };
}

type Decode = (raw: Uint8Array, frames: number, out: Float32Array[]) => void;

function decoder(kind: SampleKind, bits: number, channelCount: number): Decode {
  const width = bits / 8;
  const stride = width * channelCount;
  const each =
    (sample: (v: DataView, at: number) => number): Decode =>
    (raw, frames, out) => {
      const v = view(raw);
      for (let c = 0; c < channelCount; c++) {
        const channel = out[c];
        for (let i = 0, at = c * width; i < frames; i++, at += stride) channel[i] = sample(v, at);
      }
    };
  if (kind === "float")
    return bits === 32 ? each((v, at) => v.getFloat32(at, true)) : each((v, at) => v.getFloat64(at, true));
  if (bits === 8) return each((v, at) => (v.getUint8(at) - 128) / 128);
  if (bits === 16 && channelCount === 2)
    return (raw, frames, [left, right]) => stereoOfSixteen(raw, frames, left, right);
  if (bits === 16) return each((v, at) => v.getInt16(at, true) / 32768);
  if (bits === 24) return each((v, at) => (v.getUint16(at, true) + v.getInt8(at + 2) * 65536) / 8388608);
  return each((v, at) => v.getInt32(at, true) / 2147483648);
}
