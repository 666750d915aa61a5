import { ChainedFir } from "./chained-fir";
import { KernelRoom } from "./fir-kernel";
import type { Samples } from "./signal";

/** A long block is taken in parts: no copy of the whole of it is made. */
const MOST_AT_ONCE = 32_768;

/** Results of a filter; `im` is empty where they are real. */
export interface Filtered {
  re: Float32Array;
  im: Float32Array;
}

/**
 * Low-pass filters a stream and keeps every `factor`-th result; with `centreRadians` the pass band is moved up
 * to that frequency and the result is complex (`ChainedFir`). Blocks of any length may be pushed; the
 * results are the same as for one long block.
 */
export class FirDecimator {
  private readonly fir: ChainedFir;

  /** @param taps symmetric, odd in number, as `kaiserLowpass` makes them */
  constructor(
    taps: Float64Array,
    readonly factor: number,
    centreRadians?: number,
  ) {
    this.fir = new ChainedFir(taps, factor, centreRadians);
  }

  get delaySamples(): number {
    return this.fir.delaySamples;
  }

  /** Takes a block, returns the new results (fresh arrays, possibly empty). */
  push(input: Samples): Filtered {
    const count = this.fir.resultsOf(input.length);
    const re = new Float32Array(count);
    const im = new Float32Array(this.fir.isComplex ? count : 0);
    let done = 0;
    for (let at = 0; at < input.length; at += MOST_AT_ONCE)
      done += this.take(input.subarray(at, at + MOST_AT_ONCE), re.subarray(done), im.subarray(done));
    return { re, im };
  }

  /** @returns how many results there are now at the beginning of both arrays */
  private take(input: Samples, re: Float32Array, im: Float32Array): number {
    const { fir } = this;
    const samples = input.length;
    const room = new KernelRoom(fir.roomFor(samples) + 2 * samples);
    const at = fir.begin(room, samples);
    room.singles.set(input, at);
    const [real, imaginary] = [room.place(samples), room.place(samples)];
    const count = fir.run(room, { at, samples }, real, imaginary);
    re.set(room.singles.subarray(real, real + count));
    if (fir.isComplex) im.set(room.singles.subarray(imaginary, imaginary + count));
    return count;
  }
}
