import { begunKernel, SINGLE_BYTES, singlesIn } from "./begun-kernel";
import type { Samples } from "./signal";

/*
 * What is done with every sample of a recording: loops over arrays took 5 to 6 ns for each of these, which was a sixth of what
 * speed and flutter of a file cost; four lanes at a time (WebAssembly SIMD) take a fraction of a nanosecond, copying
 * included. Its source is sample-kernel.wat beside it; the test holds one against the other.
 */
export const SAMPLE_KERNEL = [
  "AGFzbQEAAAABDwJgBH9/f38AYAN/f38BfQMDAgABBQMBABAHGwMGbWVtb3J5AgAHc2l4dGVlbgAABGxvb2sAAQqOAgJvAQJ7QwAAADj9",
  "EyEFAkADQCADQQBMDQEgAP0ABAAhBCABIARBEP2rAUEQ/awB/foBIAX95gH9CwQAIAIgBEEQ/awB/foBIAX95gH9CwQAIABBEGohACAB",
  "QRBqIQEgAkEQaiECIANBBGshAwwACwsLmwEBBXsCQANAIAFFDQEgAP0ABAAhAyAA/QAEECEEIAUgAyAD/eYB/eQBIQUgBiAEIAT95gH9",
  "5AEhBiAHIAP94AH96wEgBP3gAf3rASEHIABBIGohACABQQhrIQEMAAsLIAIgB/0fACAH/R8BlyAH/R8CIAf9HwOXlzgCACAFIAb95AEh",
  "BSAF/R8AIAX9HwGSIAX9HwIgBf0fA5KSCw==",
].join("");

interface Kernel {
  sixteen(x: number, left: number, right: number, count: number): void;
  look(x: number, count: number, peak: number): number;
}

const kernel = begunKernel<Kernel>(SAMPLE_KERNEL);

const AT_A_TIME = 8;
const filledUp = (count: number) => AT_A_TIME * Math.ceil(count / AT_A_TIME);

/**
 * Stereo of 16-bit integers, left and right in turn, lowest byte first, as samples with full scale = ±1.
 * @param bytes four for each of `frames`
 * @param left, right where they go, at least `frames` long
 */
export function stereoOfSixteen(
  bytes: Uint8Array,
  frames: number,
  left: Float32Array,
  right: Float32Array,
): void {
  const { memory, sixteen } = kernel();
  const room = filledUp(frames);
  const singles = singlesIn(memory, 3 * room);
  new Uint8Array(memory.buffer).set(bytes.subarray(0, 2 * 2 * frames));
  sixteen(0, room * SINGLE_BYTES, 2 * room * SINGLE_BYTES, frames);
  left.set(singles.subarray(room, room + frames));
  right.set(singles.subarray(2 * room, 2 * room + frames));
}

/**
 * The sum of the squares of some thousand samples at most, to a hundred thousandth, and the largest magnitude. Where one of
 * them is no number the sum is none either.
 */
export function squaresAndPeak(samples: Samples): { squares: number; peak: number } {
  const { memory, look } = kernel();
  const count = filledUp(samples.length);
  const singles = singlesIn(memory, count + AT_A_TIME);
  singles.set(samples);
  singles.fill(0, samples.length, count);
  const squares = look(0, count, count * SINGLE_BYTES);
  return { squares, peak: singles[count] };
}
