import type { ByteRun, ByteSource } from "./byte-source";
import { BytesEnd } from "./flac-bits";
import {
  BadFrame,
  decodeFlacFrame,
  MOST_HEADER_BYTES,
  readFlacHeader,
  type FlacFrame,
  type FlacStream,
} from "./flac-frame";
import { requireSampleRate, SoundFileError, type SoundFile } from "./sound-file";

/** Read at a time. */
const PIECE_BYTES = 64 * 1024;
const STREAM_INFO = 0;
const LAST_BLOCK = 0x80;
/** No block of a file has this kind: it is the start of a frame. */
const NO_BLOCK = 0x7f;
/** Silence takes 11 bytes for 65 535 samples: no file holds more for each of its bytes. */
const MOST_SAMPLES_PER_BYTE = 6000;

/**
 * Opens a native FLAC file of 4 to 32 bits (RFC 9639); tags and pictures are stepped over. Samples come out as the whole
 * numbers that went in, so a FLAC and a WAV of one sound give the same figures. Each frame is checked by its own sums:
 * what was damaged comes out as silence in its place, with a warning.
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
  if (bitsPerSample < 4)
    throw new SoundFileError(
      `The FLAC file says it has ${bitsPerSample} bits a sample, which cannot be. It is damaged; copy it again.`,
    );
  const stream = { sampleRateHz, channelCount, bitsPerSample };
  const soundAt = await startOfSound(source, start);

  const could = MOST_SAMPLES_PER_BYTE * source.size;
  const mostSamples = claimedFrames > 0 ? Math.min(claimedFrames, could) : could;

  const warnings: string[] = [];
  const blocks = async function* (): AsyncGenerator<Float32Array[]> {
    warnings.length = 0;
    const full = 2 ** (bitsPerSample - 1);
    const run = source.readFrom(soundAt);
    const decoder = new Frames(run, stream, mostSamples);
    let frames = 0;
    try {
      for await (const channels of decoder.blocks()) {
        frames += channels[0].length;
        yield channels.map((channel) => new Float32Array(channel.map((sample) => sample / full)));
      }
    } finally {
      run.end();
    }
    if (decoder.good === 0)
      throw new SoundFileError(
        "The FLAC file holds no sound that can be decoded. It is damaged; copy or export it again.",
      );
    if (decoder.damaged > 0)
      warnings.push(
        `${decoder.damaged} damaged places in the FLAC file: ${decoder.silenced} samples there are silence. Copy it again.`,
      );
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

/**
 * Where the first frame begins, after every block that tells of the sound: what looks like a frame in one of those is none.
 * @throws SoundFileError where they run beyond the end
 */
async function startOfSound(source: ByteSource, start: number): Promise<number> {
  let at = start + 4;
  for (;;) {
    const head = await source.read(at, 4);
    if (head.length < 4)
      throw new SoundFileError(
        "The FLAC file ends, or is damaged, before its sound begins. It holds no sound that can be read; copy it again.",
      );
    if ((head[0] & NO_BLOCK) === NO_BLOCK) return at;
    at += 4 + head[1] * 65536 + head[2] * 256 + head[3];
    if (head[0] & LAST_BLOCK) return at;
  }
}

/** The frames of a file one after the other, each in its place in time. */
class Frames {
  good = 0;
  damaged = 0;
  silenced = 0;
  private held = new Uint8Array(0);
  private position = 0;
  /** Of the first frame, where frames are numbered. */
  private usualSize = 0;

  /** @param mostSamples that there can be in it */
  constructor(
    private readonly run: ByteRun,
    private readonly stream: FlacStream,
    private readonly mostSamples: number,
  ) {}

  async *blocks(): AsyncGenerator<Float64Array[]> {
    let isLost = false;
    while (this.held.length > 0 || (await this.more())) {
      const frame = await this.next();
      const from = frame && this.startOf(frame);
      if (frame === null || from === null || from < this.position || from > this.mostSamples) {
        if (!isLost) this.damaged++;
        isLost = true;
        await this.toNextFrame();
        continue;
      }
      yield* this.silence(from - this.position);
      isLost = false;
      this.good++;
      this.held = this.held.subarray(frame.bytes);
      this.position = from + frame.blockSize;
      yield frame.channels;
    }
  }

  private startOf({ numbers, number, blockSize }: FlacFrame): number {
    if (numbers === "samples") return number;
    if (this.usualSize === 0) this.usualSize = blockSize;
    return number * this.usualSize;
  }

  /** What was lost, as long as it was. */
  private *silence(samples: number): Generator<Float64Array[]> {
    this.silenced += samples;
    for (let left = samples; left > 0; left -= PIECE_BYTES) {
      const length = Math.min(left, PIECE_BYTES);
      yield Array.from({ length: this.stream.channelCount }, () => new Float64Array(length));
    }
  }

  /** The frame that what is held begins with; null where it is none. */
  private async next(): Promise<FlacFrame | null> {
    for (;;)
      try {
        return decodeFlacFrame(this.held, this.stream);
      } catch (error) {
        if (error instanceof BadFrame) return null;
        if (!(error instanceof BytesEnd)) throw error;
        if (!(await this.more())) return null;
      }
  }

  /** Goes on to where the next frame may begin, or to the end. */
  private async toNextFrame(): Promise<void> {
    let at = 1;
    for (;;) {
      while (at + MOST_HEADER_BYTES <= this.held.length && !this.mayBegin(at)) at++;
      const found = at + MOST_HEADER_BYTES <= this.held.length;
      this.held = this.held.subarray(at);
      if (found) return;
      at = 0;
      if (await this.more()) continue;
      while (at < this.held.length && !this.mayBegin(at)) at++;
      this.held = this.held.subarray(at);
      return;
    }
  }

  private mayBegin(at: number): boolean {
    const { held } = this;
    if (held[at] !== 0xff || (held[at + 1] & 0xfe) !== 0xf8) return false;
    try {
      readFlacHeader(held.subarray(at, at + MOST_HEADER_BYTES), this.stream);
      return true;
    } catch (error) {
      if (error instanceof BadFrame || error instanceof BytesEnd) return false;
      throw error;
    }
  }

  /** Reads on, more at a time the more is needed at once. @returns whether there was more */
  private async more(): Promise<boolean> {
    const piece = await this.run.next(Math.max(PIECE_BYTES, this.held.length));
    if (piece.length === 0) return false;
    const held = new Uint8Array(this.held.length + piece.length);
    held.set(this.held);
    held.set(piece, this.held.length);
    this.held = held;
    return true;
  }
}

/** Length of an ID3v2 tag in front of the sound, 0 without one. */
async function tagLength(source: ByteSource): Promise<number> {
  const head = await source.read(0, 10);
  if (head.length < 10 || String.fromCharCode(...head.subarray(0, 3)) !== "ID3") return 0;
  return 10 + head.subarray(6, 10).reduce((size, byte) => size * 128 + (byte & 127), 0);
}
