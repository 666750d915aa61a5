import { begunKernel, NUMBER_BYTES, numbersIn } from "./begun-kernel";

/*
 * Sums of products, two at a time. Filters at the full rate are most of what measuring costs; plain loops over arrays took
 * 3.5 to 5.6 ns for a pair of taps, this takes 1.1 (WebAssembly SIMD, double precision throughout). Its source is
 * fir-kernel.wat beside it; the test holds one against the other.
 */
export const FIR_KERNEL = [
  "AGFzbQEAAAABFQJgCH9/f39/f39/AGAGf39/f39/AAMDAgABBQMBABAHFwMGbWVtb3J5AgAEYm90aAAAA29uZQABCvADArMCAgJ/",
  "BnsCQANAIAVFDQH9DAAAAAAAAAAAAAAAAAAAAAAhDP0MAAAAAAAAAAAAAAAAAAAAACEN/QwAAAAAAAAAAAAAAAAAAAAAIQ79DAAA",
  "AAAAAAAAAAAAAAAAAAAhD0EAIQgDQCAAIAhqIQkgCf0ABAAhCiAJ/QAEECELIAEgCGohCSAMIAogCf0ABAD98gH98AEhDCANIAsg",
  "Cf0ABBD98gH98AEhDSACIAhqIQkgDiAKIAn9AAQA/fIB/fABIQ4gDyALIAn9AAQQ/fIB/fABIQ8gCEEgaiEIIAggA0kNAAsgDCAN",
  "/fABIQwgDiAP/fABIQ4gBiAM/SEAIAz9IQGgOQMAIAcgDv0hACAO/SEBoDkDACAGQQhqIQYgB0EIaiEHIAAgBGohACAFQQFrIQUM",
  "AAsLC7gBAgN/AnsCQANAIARFDQH9DAAAAAAAAAAAAAAAAAAAAAAhCf0MAAAAAAAAAAAAAAAAAAAAACEKQQAhBgNAIAAgBmohByAB",
  "IAZqIQggCSAH/QAEACAI/QAEAP3yAf3wASEJIAogB/0ABBAgCP0ABBD98gH98AEhCiAGQSBqIQYgBiACSQ0ACyAJIAr98AEhCSAF",
  "IAn9IQAgCf0hAaA5AwAgBUEIaiEFIAAgA2ohACAEQQFrIQQMAAsLCw==",
].join("");

interface Kernel {
  both(
    x: number,
    a: number,
    b: number,
    bytes: number,
    step: number,
    count: number,
    re: number,
    im: number,
  ): void;
  one(x: number, a: number, bytes: number, step: number, count: number, re: number): void;
}

/** Taps are taken four at a time. */
const AT_A_TIME = 4;

const kernel = begunKernel<Kernel>(FIR_KERNEL);

/** Rows of taps as the kernel takes them: as long as the longest, filled up with zeros to a multiple of four. */
export function firRow(taps: Float64Array): Float64Array {
  const row = new Float64Array(AT_A_TIME * Math.ceil(taps.length / AT_A_TIME));
  row.set(taps);
  return row;
}

/**
 * Result k is the sum over j of row[j]·samples[from + k·step + j]: into `re` by the first row, and into `im` by the second
 * where there is one.
 * @param rows of `firRow`, all of one length
 * @param into of one length: that of the results
 */
export function convolve(
  samples: Float64Array,
  from: number,
  step: number,
  rows: readonly [Float64Array] | readonly [Float64Array, Float64Array],
  into: { re: Float64Array; im: Float64Array },
): void {
  const { memory, both, one } = kernel();
  const count = into.re.length;
  if (count === 0) return;
  const [first, second] = rows;
  const taps = first.length;
  const length = (count - 1) * step + taps;
  // one after the other: both rows, what comes out, the samples
  const [a, b, re] = [0, taps, 2 * taps];
  const im = re + count;
  const x = im + count;
  const numbers = numbersIn(memory, x + length);
  numbers.set(first, a);
  const there = samples.subarray(from, from + length);
  numbers.set(there, x);
  // zeros at the end of a row must not meet what is no number
  numbers.fill(0, x + there.length, x + length);
  const at = (place: number) => place * NUMBER_BYTES;
  if (second === undefined) one(at(x), at(a), at(taps), at(step), count, at(re));
  else {
    numbers.set(second, b);
    both(at(x), at(a), at(b), at(taps), at(step), count, at(re), at(im));
    into.im.set(numbers.subarray(im, im + count));
  }
  into.re.set(numbers.subarray(re, re + count));
}
