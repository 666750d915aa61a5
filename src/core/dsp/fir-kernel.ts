import { begunKernel, SINGLE_BYTES, singlesIn } from "./begun-kernel";

/*
 * Sums of products, four at a time, and the steps of a tone's phase between two filters. Filters at the full rate are most of
 * what measuring costs; plain loops over arrays took 3.5 to 5.6 ns for a pair of taps, this takes less than a tenth of that
 * (WebAssembly SIMD). Single precision: what it rounds lies some 130 dB below the loudest that a filter sees, below the
 * last bit of what is recorded. Its source is fir-kernel.wat beside it; the test holds one against the other.
 */
export const FIR_KERNEL = [
  "AGFzbQEAAAABJgRgAXsBfWAIf39/f39/f38AYAZ/f39/f38AYAh/f398fHx/fwF/AwUEAAECAwUDAQAQBx8EBm1lbW9yeQIABGJvdGgA",
  "AQNvbmUAAgVzdGVwcwADCokQBBkAIAD9HwAgAP0fApIgAP0fASAA/R8DkpIL9QUCAn8LewJAA0AgBUEESA0B/QwAAAAAAAAAAAAAAAAA",
  "AAAAIQ39DAAAAAAAAAAAAAAAAAAAAAAhEf0MAAAAAAAAAAAAAAAAAAAAACEO/QwAAAAAAAAAAAAAAAAAAAAAIRL9DAAAAAAAAAAAAAAA",
  "AAAAAAAhD/0MAAAAAAAAAAAAAAAAAAAAACET/QwAAAAAAAAAAAAAAAAAAAAAIRD9DAAAAAAAAAAAAAAAAAAAAAAhFEEAIQgDQCABIAhq",
  "/QAEACELIAIgCGr9AAQAIQwgACAIaiEJIAn9AAQAIQogDSAKIAv95gH95AEhDSARIAogDP3mAf3kASERIAkgBGohCSAJ/QAEACEKIA4g",
  "CiAL/eYB/eQBIQ4gEiAKIAz95gH95AEhEiAJIARqIQkgCf0ABAAhCiAPIAogC/3mAf3kASEPIBMgCiAM/eYB/eQBIRMgCSAEaiEJIAn9",
  "AAQAIQogECAKIAv95gH95AEhECAUIAogDP3mAf3kASEUIAhBEGohCCAIIANJDQALIA0gDv0NAAECAwQFBgcQERITFBUWFyANIA79DQgJ",
  "CgsMDQ4PGBkaGxwdHh/95AEhDSAPIBD9DQABAgMEBQYHEBESExQVFhcgDyAQ/Q0ICQoLDA0ODxgZGhscHR4f/eQBIQ8gBiANIA/9DQAB",
  "AgMICQoLEBESExgZGhsgDSAP/Q0EBQYHDA0ODxQVFhccHR4f/eQB/QsEACARIBL9DQABAgMEBQYHEBESExQVFhcgESAS/Q0ICQoLDA0O",
  "DxgZGhscHR4f/eQBIREgEyAU/Q0AAQIDBAUGBxAREhMUFRYXIBMgFP0NCAkKCwwNDg8YGRobHB0eH/3kASETIAcgESAT/Q0AAQIDCAkK",
  "CxAREhMYGRobIBEgE/0NBAUGBwwNDg8UFRYXHB0eH/3kAf0LBAAgBkEQaiEGIAdBEGohByAAIARBAnRqIQAgBUEEayEFDAALCyAAIAEg",
  "AyAEIAUgBhACIAAgAiADIAQgBSAHEAILjAQCAn8FewJAA0AgBEEESA0B/QwAAAAAAAAAAAAAAAAAAAAAIQn9DAAAAAAAAAAAAAAAAAAA",
  "AAAhCv0MAAAAAAAAAAAAAAAAAAAAACEL/QwAAAAAAAAAAAAAAAAAAAAAIQxBACEGA0AgASAGav0ABAAhCCAAIAZqIQcgCSAH/QAEACAI",
  "/eYB/eQBIQkgByADaiEHIAogB/0ABAAgCP3mAf3kASEKIAcgA2ohByALIAf9AAQAIAj95gH95AEhCyAHIANqIQcgDCAH/QAEACAI/eYB",
  "/eQBIQwgBkEQaiEGIAYgAkkNAAsgCSAK/Q0AAQIDBAUGBxAREhMUFRYXIAkgCv0NCAkKCwwNDg8YGRobHB0eH/3kASEJIAsgDP0NAAEC",
  "AwQFBgcQERITFBUWFyALIAz9DQgJCgsMDQ4PGBkaGxwdHh/95AEhCyAJIAv9DQABAgMICQoLEBESExgZGhsgCSAL/Q0EBQYHDA0ODxQV",
  "FhccHR4f/eQBIQkgBSAJ/QsEACAFQRBqIQUgACADQQJ0aiEAIARBBGshBAwACwsCQANAIARFDQH9DAAAAAAAAAAAAAAAAAAAAAAhCUEA",
  "IQYDQCAJIAAgBmr9AAQAIAEgBmr9AAQA/eYB/eQBIQkgBkEQaiEGIAYgAkkNAAsgBSAJEAA4AgAgBUEEaiEFIAAgA2ohACAEQQFrIQQM",
  "AAsLC+cFAQ17IAP9FCEIIAT9FCEJ/QwAAAAAAADwPwAAAAAAAPA/IQoCQANAIAJBAEwNASAA/V0DAP1fIQ8gAf1dAwD9XyEQIAD9XQME",
  "/V8hDSAB/V0DBP1fIQ4gB/0MAAAAAAAAAEAAAAAAAAAAQCANIA398gEgDiAO/fIB/fAB/e8B/fIB/V79WwMAACANIA/98gEgDiAQ/fIB",
  "/fABIREgDiAP/fIBIA0gEP3yAf3xASETIBEgCP3yASATIAn98gH98AEhDyATIAj98gEgESAJ/fIB/fEBIRAgEP3sASAP/Un9TSELIAwg",
  "C/0M//////////8AAAAAAAAAAP0M/////////////////////yACQQFGG/1O/VAhDCAQIA/98wEhESAF/RQhFCAR/ewB/QyamZmZmZnJ",
  "P5qZmZmZmck//Uz9UwRAIBEgCiAKIBEgEf3yAf3wAf3vAf3wAf3zASERIBEgCiAKIBEgEf3yAf3wAf3vAf3wAf3zASERIBT9DAAAAAAA",
  "ABBAAAAAAAAAEED98gEhFAsgESAR/fIBIRL9DB4eHh4eHq4/Hh4eHh4erj8hE/0MERERERERsT8RERERERGxPyASIBP98gH98QEhE/0M",
  "FDuxEzuxsz8UO7ETO7GzPyASIBP98gH98QEhE/0MRhdddNFFtz9GF1100UW3PyASIBP98gH98QEhE/0MHMdxHMdxvD8cx3Ecx3G8PyAS",
  "IBP98gH98QEhE/0MkiRJkiRJwj+SJEmSJEnCPyASIBP98gH98QEhE/0MmpmZmZmZyT+amZmZmZnJPyASIBP98gH98QEhE/0MVVVVVVVV",
  "1T9VVVVVVVXVPyASIBP98gH98QEhE/0MAAAAAAAA8D8AAAAAAADwPyASIBP98gH98QEhEyAUIBEgE/3yAf3yASETIAYgEyAL/VD9Xv1b",
  "AwAAIABBCGohACABQQhqIQEgBkEIaiEGIAdBCGohByACQQJrIQIMAAsLIAz9Uws=",
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
  steps(
    re: number,
    im: number,
    count: number,
    cos: number,
    sin: number,
    scale: number,
    angle: number,
    size: number,
  ): number;
}

const kernel = begunKernel<Kernel>(FIR_KERNEL);

/** Taps are taken four at a time. */
const AT_A_TIME = 4;
/** Each place is made a little larger than it was asked for. */
const MOST_PLACES = 32;

/** A row of taps as the kernel takes it: filled up with zeros to a multiple of four. */
export function firRow(taps: Float64Array): Float32Array {
  const row = new Float32Array(AT_A_TIME * Math.ceil(taps.length / AT_A_TIME));
  row.set(taps);
  return row;
}

/**
 * The kernel's memory for one piece of work, from samples to results: numbers of single precision, told by their places. What
 * is in it belongs to whoever works next.
 */
export class KernelRoom {
  readonly singles: Float32Array;
  private taken = 0;

  /** @param count numbers that are placed in it at most, in `MOST_PLACES` at most */
  constructor(count: number) {
    this.singles = singlesIn(kernel().memory, count + 2 * AT_A_TIME * MOST_PLACES);
  }

  /** Room for so many numbers, and for those that are taken along where four are taken at a time. */
  place(count: number): number {
    const at = this.taken;
    this.taken += AT_A_TIME * Math.ceil((count + AT_A_TIME) / AT_A_TIME);
    return at;
  }

  /** The same with numbers in it. */
  put(numbers: Float32Array): number {
    const at = this.place(numbers.length);
    this.singles.set(numbers, at);
    return at;
  }

  /**
   * Result k is the sum over j of tap[j]·sample[k·step + j].
   * @param rows where they stand, each of `taps` numbers, a multiple of four; the second for `im`
   */
  convolve(
    samples: number,
    rows: readonly [number] | readonly [number, number],
    taps: number,
    step: number,
    count: number,
    re: number,
    im: number,
  ): void {
    const [first, second] = rows;
    const { both, one } = kernel();
    const [x, a, r] = [byte(samples), byte(first), byte(re)];
    if (second === undefined) one(x, a, byte(taps), byte(step), count, r);
    else both(x, a, byte(second), byte(taps), byte(step), count, r, byte(im));
  }

  /**
   * From each point to the next, of one more than `count` at `re` and `im`: by what angle beyond a steady one, radians times
   * `scale`, and twice the distance of the next from 0.
   */
  steps(
    re: number,
    im: number,
    count: number,
    steady: { cos: number; sin: number },
    scale: number,
    angle: number,
    size: number,
  ): void {
    const { cos, sin } = steady;
    const wide = kernel().steps(byte(re), byte(im), count, cos, sin, scale, byte(angle), byte(size)) !== 0;
    if (!wide) return;
    const { singles } = this;
    for (let k = 0; k < count; k++) {
      if (!Number.isNaN(singles[angle + k])) continue;
      const [p, q, r, i] = [singles[re + k], singles[im + k], singles[re + k + 1], singles[im + k + 1]];
      const [x, y] = [r * p + i * q, i * p - r * q];
      singles[angle + k] = scale * Math.atan2(y * cos - x * sin, x * cos + y * sin);
    }
  }
}

const byte = (place: number) => place * SINGLE_BYTES;
