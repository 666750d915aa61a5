import type FFT from "fft.js";
import { fftWorkspace } from "./fft-workspace";

/**
 * A filter of many taps over a stream, by way of the Fourier transform (overlap-save). As many samples come out as went
 * in; before the first sample there was silence, or what `before` says.
 */
export class FastFir {
  private readonly fft: FFT;
  private readonly size: number;
  private readonly most: number;
  private readonly gain: number[];
  private readonly held: Float64Array;
  private readonly real: number[];
  private readonly work: number[];
  private readonly spectrum: number[];

  /** @param before what went in last, at least as long as the taps less one; its end counts */
  constructor(
    private readonly taps: Float64Array,
    before: Float64Array = new Float64Array(0),
  ) {
    this.size = 2 ** Math.ceil(Math.log2(4 * taps.length));
    this.most = this.size - taps.length + 1;
    this.fft = fftWorkspace(this.size).fft;
    this.real = new Array<number>(this.size).fill(0);
    this.work = this.fft.createComplexArray();
    this.spectrum = this.fft.createComplexArray();
    this.gain = this.fft.createComplexArray();
    this.held = new Float64Array(taps.length - 1);
    const kept = before.subarray(Math.max(0, before.length - this.held.length));
    this.held.set(kept, this.held.length - kept.length);
    taps.forEach((tap, i) => (this.real[i] = tap));
    this.fft.realTransform(this.gain, this.real);
    this.fft.completeSpectrum(this.gain);
  }

  push(block: Float64Array): Float64Array<ArrayBuffer> {
    const out = new Float64Array(block.length);
    for (let at = 0; at < block.length; at += this.most)
      this.filter(block.subarray(at, at + this.most), out, at);
    return out;
  }

  private filter(part: Float64Array, out: Float64Array, at: number): void {
    const { real, work, spectrum, gain, held, fft } = this;
    for (let i = 0; i < held.length; i++) real[i] = held[i];
    for (let i = 0; i < part.length; i++) real[held.length + i] = part[i];
    real.fill(0, held.length + part.length);
    fft.realTransform(spectrum, real);
    for (let k = 0; k < this.size + 2; k += 2) {
      const [re, im] = [spectrum[k], spectrum[k + 1]];
      spectrum[k] = re * gain[k] - im * gain[k + 1];
      spectrum[k + 1] = re * gain[k + 1] + im * gain[k];
    }
    fft.completeSpectrum(spectrum);
    const tail = Math.min(part.length, held.length);
    held.copyWithin(0, tail);
    held.set(part.subarray(part.length - tail), held.length - tail);
    fft.inverseTransform(work, spectrum);
    for (let i = 0; i < part.length; i++) out[at + i] = work[2 * (this.taps.length - 1 + i)];
  }
}
