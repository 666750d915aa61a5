import { Fft } from "./fft";

/**
 * A filter of many taps over a stream, by way of the Fourier transform (overlap-save). As many samples come out as went
 * in; before the first sample there was silence, or what `before` says.
 */
export class FastFir {
  private readonly fft: Fft;
  private readonly size: number;
  private readonly most: number;
  private readonly gain: Float64Array;
  private readonly held: Float64Array;
  private readonly real: Float64Array;

  /** @param before what went in last, at least as long as the taps less one; its end counts */
  constructor(
    private readonly taps: Float64Array,
    before: Float64Array = new Float64Array(0),
  ) {
    this.size = 2 ** Math.ceil(Math.log2(4 * taps.length));
    this.most = this.size - taps.length + 1;
    this.fft = Fft.kept(this.size);
    this.real = new Float64Array(this.size);
    this.gain = this.fft.createComplexArray();
    this.held = new Float64Array(taps.length - 1);
    const kept = before.subarray(Math.max(0, before.length - this.held.length));
    this.held.set(kept, this.held.length - kept.length);
    this.real.set(taps);
    this.fft.realTransform(this.gain, this.real);
  }

  push(block: Float64Array): Float64Array<ArrayBuffer> {
    const out = new Float64Array(block.length);
    for (let at = 0; at < block.length; at += this.most)
      this.filter(block.subarray(at, at + this.most), out, at);
    return out;
  }

  private filter(part: Float64Array, out: Float64Array, at: number): void {
    const { real, gain, held } = this;
    real.set(held);
    real.set(part, held.length);
    real.fill(0, held.length + part.length);
    const tail = Math.min(part.length, held.length);
    held.copyWithin(0, tail);
    held.set(part.subarray(part.length - tail), held.length - tail);
    this.fft.filter(real, gain);
    out.set(real.subarray(this.taps.length - 1, this.taps.length - 1 + part.length), at);
  }
}
