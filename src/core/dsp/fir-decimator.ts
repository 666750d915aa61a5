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
  /** Taps from the centre outwards: the even part, and for a complex result the odd part. */
  private readonly even: Float64Array;
  private readonly odd: Float64Array | null;
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
    const outwards = taps.slice(this.delaySamples);
    const omega = centreRadians ?? 0;
    this.even = outwards.map((tap, j) => tap * Math.cos(omega * j));
    this.odd = centreRadians === undefined ? null : outwards.map((tap, j) => -tap * Math.sin(omega * j));
    this.next = this.tapCount;
  }

  /** Takes a block, returns the new results (fresh arrays, possibly empty); `im` is empty for a real result. */
  push(input: Float64Array | Float32Array): { re: Float64Array; im: Float64Array } {
    const n = this.tapCount;
    if (this.held + input.length > this.history.length) {
      const grown = new Float64Array(this.held + input.length + n);
      grown.set(this.history.subarray(0, this.held));
      this.history = grown;
    }
    this.history.set(input, this.held);
    this.held += input.length;

    const count = this.held >= this.next ? Math.floor((this.held - this.next) / this.factor) + 1 : 0;
    const re = new Float64Array(count);
    const im = new Float64Array(this.odd === null ? 0 : count);
    const centre = this.next - 1 - this.delaySamples;
    if (this.odd === null) convolveReal(this.history, this.even, centre, this.factor, re);
    else convolveComplex(this.history, this.even, this.odd, centre, this.factor, re, im);

    this.next += count * this.factor;
    const drop = Math.min(this.next - n, this.held);
    this.history.copyWithin(0, drop, this.held);
    this.held -= drop;
    this.next -= drop;
    return { re, im };
  }
}

function convolveReal(
  x: Float64Array,
  even: Float64Array,
  centre: number,
  step: number,
  re: Float64Array,
): void {
  const half = even.length - 1;
  for (let k = 0, m = centre; k < re.length; k++, m += step) {
    let sum = even[0] * x[m];
    for (let j = 1; j <= half; j++) sum += even[j] * (x[m + j] + x[m - j]);
    re[k] = sum;
  }
}

function convolveComplex(
  x: Float64Array,
  even: Float64Array,
  odd: Float64Array,
  centre: number,
  step: number,
  re: Float64Array,
  im: Float64Array,
): void {
  const half = even.length - 1;
  for (let k = 0, m = centre; k < re.length; k++, m += step) {
    let sumEven = even[0] * x[m];
    let sumOdd = 0;
    for (let j = 1; j <= half; j++) {
      const after = x[m + j];
      const before = x[m - j];
      sumEven += even[j] * (after + before);
      sumOdd += odd[j] * (after - before);
    }
    re[k] = sumEven;
    im[k] = sumOdd;
  }
}
