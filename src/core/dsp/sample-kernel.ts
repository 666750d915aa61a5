import { begunKernel, SINGLE_BYTES, singlesIn } from "./begun-kernel";
import type { Samples } from "./signal";

/*
 * What is done with every sample of a recording: loops over arrays took 5 to 6 ns for each of these, which was a sixth of what
 * speed and flutter of a file cost; four lanes at a time (WebAssembly SIMD) take a fraction of a nanosecond, copying
 * included. Its source is sample-kernel.wat beside it; the test holds one against the other.
 */
export const SAMPLE_KERNEL = [
  "AGFzbQEAAAABFANgBH9/f38AYAJ/fwF8YAJ/fwF9AwQDAAECBQMBABAHJQQGbWVtb3J5AgAHc2l4dGVlbgAAB3NxdWFyZXMAAQRwZWFr",
  "AAIKsAIDbwECe0MAAAA4/RMhBQJAA0AgA0EATA0BIAD9AAQAIQQgASAEQRD9qwFBEP2sAf36ASAF/eYB/QsEACACIARBEP2sAf36ASAF",
  "/eYB/QsEACAAQRBqIQAgAUEQaiEBIAJBEGohAiADQQRrIQMMAAsLC3cBBXsCQANAIAFFDQEgAP0ABAAhAiAC/V8hAyACIAL9DQgJCgsM",
  "DQ4PAAECAwQFBgf9XyEEIAUgAyAD/fIB/fABIQUgBiAEIAT98gH98AEhBiAAQRBqIQAgAUEEayEBDAALCyAFIAb98AEhBSAF/SEAIAX9",
  "IQGgC0YBAXsCQANAIAFFDQEgAiAA/QAEAP3gAf3pASECIABBEGohACABQQRrIQEMAAsLIAL9HwAgAv0fAZcgAv0fAiAC/R8Dl5cL",
].join("");

interface Kernel {
  sixteen(x: number, left: number, right: number, count: number): void;
  squares(x: number, count: number): number;
  peak(x: number, count: number): number;
}

const kernel = begunKernel<Kernel>(SAMPLE_KERNEL);

const AT_A_TIME = 4;
const upToFour = (count: number) => AT_A_TIME * Math.ceil(count / AT_A_TIME);

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
  const room = upToFour(frames);
  const singles = singlesIn(memory, 3 * room);
  new Uint8Array(memory.buffer).set(bytes.subarray(0, 2 * 2 * frames));
  sixteen(0, room * SINGLE_BYTES, 2 * room * SINGLE_BYTES, frames);
  left.set(singles.subarray(room, room + frames));
  right.set(singles.subarray(2 * room, 2 * room + frames));
}

/** The sum of the squares of samples, and the largest magnitude; neither is a number where one of the samples is none. */
export function squaresAndPeak(samples: Samples): { squares: number; peak: number } {
  const { memory, squares, peak } = kernel();
  const count = upToFour(samples.length);
  const singles = singlesIn(memory, count);
  singles.set(samples);
  singles.fill(0, samples.length, count);
  return { squares: squares(0, count), peak: peak(0, count) };
}
