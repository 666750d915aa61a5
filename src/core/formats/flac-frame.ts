import { BytesEnd, FlacBits } from "./flac-bits";

/** What stands there is no frame, or one that was damaged. */
export class BadFrame extends Error {
  override name = "BadFrame";
}

/** What every frame of a file has in common, from its first block. */
export interface FlacStream {
  sampleRateHz: number;
  channelCount: number;
  bitsPerSample: number;
}

export interface FlacHeader {
  blockSize: number;
  /** Its first sample, or its own number where all blocks are of one size. */
  number: number;
  numbers: "samples" | "frames";
  /** Of the channels: each by itself, or two by their sum and difference. */
  stereo: "independent" | "left-side" | "side-right" | "mid-side";
  bytes: number;
}

export interface FlacFrame extends FlacHeader {
  /** Whole numbers, a channel each. */
  channels: Float64Array[];
}

/** The longest header: 4 bytes, a number of 7, size and rate of 2 each, a sum of 1. */
export const MOST_HEADER_BYTES = 16;
/** A frame that is packed badly is still not much longer than its samples. */
const FRAME_OVERHEAD = 1.5;
const mostFrameBytes = ({ blockSize }: FlacHeader, { channelCount, bitsPerSample }: FlacStream) =>
  64 + Math.ceil((FRAME_OVERHEAD * blockSize * channelCount * (bitsPerSample + 1)) / 8);

const STEREO = ["left-side", "side-right", "mid-side"] as const;
const RATES = [0, 88200, 176400, 192000, 8000, 16000, 22050, 24000, 32000, 44100, 48000, 96000];
const BITS = [0, 8, 12, -1, 16, 20, 24, 32];

/**
 * Whether a frame of this stream may begin at a place (RFC 9639, 9.1): its header with its own sum.
 * @throws BadFrame where none does, BytesEnd when the bytes end before the header does
 */
export function readFlacHeader(bytes: Uint8Array, stream: FlacStream): FlacHeader {
  const bits = new FlacBits(bytes.subarray(0, MOST_HEADER_BYTES));
  const sync = bits.unsigned(15);
  if (sync !== 0b111111111111100) throw new BadFrame("no frame begins here");
  const numbers = bits.unsigned(1) === 1 ? "samples" : "frames";
  const [size, rate, assigned, depth] = [4, 4, 4, 3].map((count) => bits.unsigned(count));
  if (bits.unsigned(1) !== 0) throw new BadFrame("a reserved bit is set");
  const number = codedNumber(bits);
  const blockSize = blockSizeOf(size, bits);
  const rateHz = rateOf(rate, bits);
  const sum = bits.unsigned(8);
  bits.check();
  const length = bits.at / 8;
  if (crc8(bytes.subarray(0, length - 1)) !== sum) throw new BadFrame("the sum of the header is wrong");
  const channelCount = assigned < 8 ? assigned + 1 : 2;
  const odd =
    assigned > 10 ||
    (rateHz !== 0 && rateHz !== stream.sampleRateHz) ||
    (BITS[depth] !== 0 && BITS[depth] !== stream.bitsPerSample) ||
    channelCount !== stream.channelCount;
  if (odd) throw new BadFrame("it is of another stream");
  const stereo = assigned < 8 ? "independent" : STEREO[assigned - 8];
  return { blockSize, number, numbers, stereo, bytes: length };
}

function blockSizeOf(code: number, bits: FlacBits): number {
  if (code === 0) throw new BadFrame("a reserved block size");
  if (code === 1) return 192;
  if (code < 6) return 576 * 2 ** (code - 2);
  if (code < 8) return bits.unsigned(code === 6 ? 8 : 16) + 1;
  return 256 * 2 ** (code - 8);
}

function rateOf(code: number, bits: FlacBits): number {
  if (code < RATES.length) return RATES[code];
  if (code === 12) return 1000 * bits.unsigned(8);
  if (code === 13) return bits.unsigned(16);
  if (code === 14) return 10 * bits.unsigned(16);
  throw new BadFrame("a sample rate that cannot be");
}

/** A number of up to 36 bits, coded as UTF-8 codes characters. */
function codedNumber(bits: FlacBits): number {
  const first = bits.unsigned(8);
  const length = first < 0x80 ? 1 : Math.clz32(~(first << 24));
  if (length === 1 && first >= 0x80) throw new BadFrame("its number is damaged");
  if (length > 7) throw new BadFrame("its number is damaged");
  let value = length === 1 ? first : first & (0xff >> (length + 1));
  for (let i = 1; i < length; i++) {
    const next = bits.unsigned(8);
    if (next >> 6 !== 0b10) throw new BadFrame("its number is damaged");
    value = value * 64 + (next & 63);
  }
  return value;
}

/**
 * Decodes the frame that begins with the first of some bytes; samples come out as the whole numbers that went in.
 * @throws BadFrame for what is none or was damaged, BytesEnd when it does not end within the bytes
 */
export function decodeFlacFrame(bytes: Uint8Array, stream: FlacStream): FlacFrame {
  const header = readFlacHeader(bytes, stream);
  const most = mostFrameBytes(header, stream);
  try {
    return frameOf(header, bytes.subarray(0, most), stream);
  } catch (error) {
    if (error instanceof BytesEnd && bytes.length >= most) throw new BadFrame("it does not end");
    throw error;
  }
}

function frameOf(header: FlacHeader, bytes: Uint8Array, stream: FlacStream): FlacFrame {
  const bits = new FlacBits(bytes);
  bits.at = 8 * header.bytes;
  const { blockSize, stereo } = header;
  const channels = Array.from({ length: stream.channelCount }, (_, c) =>
    subframe(bits, blockSize, stream.bitsPerSample + (isSide(stereo, c) ? 1 : 0)),
  );
  bits.toByte();
  const end = bits.at / 8;
  const sum = bits.unsigned(16);
  bits.check();
  if (crc16(bytes.subarray(0, end)) !== sum) throw new BadFrame("the sum of the frame is wrong");
  undoStereo(stereo, channels);
  return { ...header, channels, bytes: end + 2 };
}

const isSide = (stereo: FlacHeader["stereo"], c: number): boolean =>
  stereo === "side-right" ? c === 0 : stereo !== "independent" && c === 1;

function undoStereo(stereo: FlacHeader["stereo"], [one, other]: Float64Array[]): void {
  switch (stereo) {
    case "independent":
      return;
    case "left-side":
      for (let i = 0; i < one.length; i++) other[i] = one[i] - other[i];
      return;
    case "side-right":
      for (let i = 0; i < one.length; i++) one[i] += other[i];
      return;
    case "mid-side":
      for (let i = 0; i < one.length; i++) {
        const side = other[i];
        // the sum and the difference are odd together: the bit that halving lost is the difference's
        const sum = 2 * one[i] + Math.abs(side % 2);
        one[i] = (sum + side) / 2;
        other[i] = (sum - side) / 2;
      }
      return;
  }
}

function subframe(bits: FlacBits, blockSize: number, withWasted: number): Float64Array {
  if (bits.unsigned(1) !== 0) throw new BadFrame("a channel does not begin");
  const type = bits.unsigned(6);
  const wasted = bits.unsigned(1) === 1 ? bits.zeros() + 1 : 0;
  const depth = withWasted - wasted;
  if (depth < 1) throw new BadFrame("no bits are left of a sample");
  const samples = new Float64Array(blockSize);
  if (type === 0) samples.fill(bits.signed(depth));
  else if (type === 1) for (let i = 0; i < blockSize; i++) samples[i] = bits.signed(depth);
  else if (type >= 8 && type <= 12)
    predicted(bits, samples, depth, type - 8, () => ({ coefficients: FIXED[type - 8], shift: 0 }));
  else if (type >= 32) predicted(bits, samples, depth, type - 31, () => ownPredictor(bits, type - 31));
  else throw new BadFrame("a channel is coded in a reserved way");
  if (wasted > 0) for (let i = 0; i < blockSize; i++) samples[i] *= 2 ** wasted;
  bits.check();
  return samples;
}

/** Coefficients of the fixed predictors, the latest sample first (RFC 9639, 9.2.5). */
const FIXED: ReadonlyArray<readonly number[]> = [[], [1], [2, -1], [3, -3, 1], [4, -6, 4, -1]];

interface Predictor {
  /** The latest sample first. */
  coefficients: readonly number[];
  shift: number;
}

/** The predictor that a channel brings with it (RFC 9639, 9.2.6). */
function ownPredictor(bits: FlacBits, order: number): Predictor {
  const precision = bits.unsigned(4) + 1;
  if (precision === 16) throw new BadFrame("a reserved precision");
  const shift = bits.signed(5);
  if (shift < 0) throw new BadFrame("a shift that cannot be");
  return { coefficients: Array.from({ length: order }, () => bits.signed(precision)), shift };
}

/** @param predictor read once the samples that it begins from were */
function predicted(
  bits: FlacBits,
  samples: Float64Array,
  depth: number,
  order: number,
  predictor: () => Predictor,
): void {
  if (order > samples.length) throw new BadFrame("more is predicted from than there is");
  for (let i = 0; i < order; i++) samples[i] = bits.signed(depth);
  const { coefficients, shift } = predictor();
  residual(bits, samples, order);
  predict(samples, coefficients, shift);
}

/** Adds to each residual what is predicted from the samples before it. Sums of 33 + 15 + 5 bits are exact. */
function predict(samples: Float64Array, coefficients: readonly number[], shift: number): void {
  const order = coefficients.length;
  if (order === 0) return;
  const taps = Float64Array.from(coefficients);
  const share = 2 ** -shift;
  for (let i = order; i < samples.length; i++) {
    let sum = 0;
    for (let j = 0, k = i - 1; j < order; j++, k--) sum += taps[j] * samples[k];
    samples[i] += Math.floor(sum * share);
  }
}

/** What prediction leaves, in partitions with a parameter each (RFC 9639, 9.2.7). */
function residual(bits: FlacBits, into: Float64Array, order: number): void {
  const method = bits.unsigned(2);
  if (method > 1) throw new BadFrame("residuals are coded in a reserved way");
  const width = method === 0 ? 4 : 5;
  const escape = 2 ** width - 1;
  const partitions = 2 ** bits.unsigned(4);
  const size = into.length / partitions;
  if (!Number.isInteger(size) || size < order) throw new BadFrame("its partitions do not fit");
  for (let p = 0; p < partitions; p++) {
    const from = p === 0 ? order : p * size;
    const parameter = bits.unsigned(width);
    if (parameter < escape) bits.rice(parameter, into, from, (p + 1) * size);
    else {
      const count = bits.unsigned(5);
      for (let i = from; i < (p + 1) * size; i++) into[i] = bits.signed(count);
    }
    bits.check();
  }
}

const table = (polynomial: number, width: 8 | 16): Uint16Array =>
  Uint16Array.from({ length: 256 }, (_, byte) => {
    let sum = byte << (width - 8);
    for (let i = 0; i < 8; i++) sum = sum & (1 << (width - 1)) ? (sum << 1) ^ polynomial : sum << 1;
    return sum & (2 ** width - 1);
  });
const CRC8 = table(0x07, 8);
const CRC16 = table(0x8005, 16);

const crc8 = (bytes: Uint8Array): number => bytes.reduce((sum, byte) => CRC8[sum ^ byte], 0);

function crc16(bytes: Uint8Array): number {
  let sum = 0;
  for (let i = 0; i < bytes.length; i++) sum = ((sum << 8) & 0xffff) ^ CRC16[(sum >> 8) ^ bytes[i]];
  return sum;
}
