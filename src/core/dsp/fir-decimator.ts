import { convolve, firRow } from "./fir-kernel";

/** A long block is taken in parts: no copy of the whole of it is made. */
const MOST_AT_ONCE = 32_768;

/**
 * Low-pass filters a stream and keeps every `factor`-th result; with `centreRadians` the pass band is moved up
 * to that frequency (radians per sample) and the result is complex. Blocks of any length may be pushed; the
 * results are the same as for one long block.
 *
 * The first result appears once the taps are full of real samples, so no start-up transient is ever handed
 * on: result k belongs to input time `delaySamples + k·factor`.
 */
export class FirDecimator {
  readonly delaySamples: number;
  /** Taps, and for a complex result those of its imaginary part. */
  private readonly rows: [Float64Array] | [Float64Array, Float64Array];
  private readonly tapCount: number;
  private history = new Float64Array(8192);
  private held = 0;
  private next: number;

  /** @param taps symmetric, odd in number, as `kaiserLowpass` makes them */
  constructor(
    taps: Float64Array,
    readonly factor: number,
    centreRadians?: number,
  ) {
    this.tapCount = taps.length;
    this.delaySamples = (taps.length - 1) / 2;
    const moved = (part: (angle: number) => number, omega: number) =>
      firRow(taps.map((tap, j) => tap * part(omega * (this.delaySamples - j))));
    this.rows =
      centreRadians === undefined
        ? [firRow(taps)]
        : [moved(Math.cos, centreRadians), moved(Math.sin, centreRadians)];
    this.next = this.tapCount;
  }

  /** Takes a block, returns the new results (fresh arrays, possibly empty); `im` is empty for a real result. */
  push(input: Float64Array | Float32Array): { re: Float64Array; im: Float64Array } {
    const count = this.resultsOf(this.held + input.length);
    const re = new Float64Array(count);
    const im = new Float64Array(this.rows.length === 1 ? 0 : count);
    let done = 0;
    for (let at = 0; at < input.length; at += MOST_AT_ONCE)
      done += this.take(input.subarray(at, at + MOST_AT_ONCE), re.subarray(done), im.subarray(done));
    return { re, im };
  }

  /** @returns how many results there are now at the beginning of both arrays */
  private take(input: Float64Array | Float32Array, re: Float64Array, im: Float64Array): number {
    const n = this.tapCount;
    if (this.held + input.length > this.history.length) {
      const grown = new Float64Array(this.held + input.length + n);
      grown.set(this.history.subarray(0, this.held));
      this.history = grown;
    }
    this.history.set(input, this.held);
    this.held += input.length;

    const count = this.resultsOf(this.held);
    const into = { re: re.subarray(0, count), im: im.subarray(0, count) };
    convolve(this.history.subarray(0, this.held), this.next - n, this.factor, this.rows, into);

    this.next += count * this.factor;
    const drop = Math.min(this.next - n, this.held);
    this.history.copyWithin(0, drop, this.held);
    this.held -= drop;
    this.next -= drop;
    return count;
  }

  /** How many new results so many samples give, what is held counted in. */
  private resultsOf(samples: number): number {
    return samples >= this.next ? Math.floor((samples - this.next) / this.factor) + 1 : 0;
  }
}
