/**
 * Filters a stream with a fixed set of taps and keeps every `factor`-th result. Blocks of any length
 * may be pushed; the results are the same as for one long block.
 *
 * The first result appears once the taps are full of real samples, so no start-up transient is ever
 * handed on: result k belongs to input time `delaySamples + k·factor`.
 */
export class FirDecimator {
  readonly delaySamples: number;
  private readonly reversed: Float64Array;
  private history: Float64Array;
  private held = 0;
  private next: number;

  constructor(
    taps: Float64Array,
    readonly factor: number,
  ) {
    this.reversed = Float64Array.from(taps).reverse();
    this.delaySamples = (taps.length - 1) / 2;
    this.history = new Float64Array(Math.max(4 * taps.length, 8192));
    this.next = taps.length;
  }

  /** Takes `input[0…length)`, returns the new results (a fresh array, possibly empty). */
  push(input: ArrayLike<number>, length = input.length): Float64Array {
    const taps = this.reversed;
    const n = taps.length;
    if (this.held + length > this.history.length) {
      const grown = new Float64Array(this.held + length + n);
      grown.set(this.history.subarray(0, this.held));
      this.history = grown;
    }
    const x = this.history;
    for (let i = 0; i < length; i++) x[this.held + i] = input[i];
    this.held += length;

    const count = this.held >= this.next ? Math.floor((this.held - this.next) / this.factor) + 1 : 0;
    const out = new Float64Array(count);
    for (let k = 0; k < count; k++) {
      const start = this.next - n + k * this.factor;
      let sum = 0;
      for (let j = 0; j < n; j++) sum += taps[j] * x[start + j];
      out[k] = sum;
    }
    this.next += count * this.factor;
    const drop = Math.min(this.next - n, this.held);
    x.copyWithin(0, drop, this.held);
    this.held -= drop;
    this.next -= drop;
    return out;
  }
}
