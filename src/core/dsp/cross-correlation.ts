import { Fft } from "./fft";
import type { Samples } from "./signal";
import { hannWindow } from "./hann-window";

export interface CorrelationPeak {
  /** By how many samples `b` has to be moved later to lie over `a`; between samples. */
  lag: number;
  /** 0 for strangers, 1 for twins. */
  height: number;
}

/** Between plain correlation (0) and phase alone (1): strong tones must not drown the rest, nor noise the tones. */
const WHITENING = 0.7;

/**
 * Generalised cross-correlation of two equally long pieces within a band: the spectra's
 * product is flattened so that a change of level or equalisation does not move the peak.
 */
export class CrossCorrelator {
  private readonly fft: Fft;
  private readonly size: number;
  private readonly a: Float64Array;
  private readonly b: Float64Array;
  private readonly product: Float64Array;
  private readonly input: Float64Array;
  private readonly window: Float64Array;

  constructor(
    readonly length: number,
    private readonly sampleRateHz: number,
    private readonly fromHz: number,
    private readonly toHz: number,
  ) {
    this.size = 2 ** Math.ceil(Math.log2(2 * length));
    this.fft = Fft.kept(this.size);
    this.a = this.fft.createComplexArray();
    this.b = this.fft.createComplexArray();
    this.product = this.fft.createComplexArray();
    this.input = new Float64Array(this.size);
    this.window = hannWindow(length);
  }

  /** The highest place of the correlation within ± `reach` samples. */
  peak(a: Samples, b: Samples, reach: number): CorrelationPeak {
    this.transform(a, this.a);
    this.transform(b, this.b);
    const { product, size } = this;
    product.fill(0);
    const binHz = this.sampleRateHz / size;
    let total = 0;
    for (let k = Math.ceil(this.fromHz / binHz); k <= Math.min(size / 2 - 1, this.toHz / binHz); k++) {
      const re = this.a[2 * k] * this.b[2 * k] + this.a[2 * k + 1] * this.b[2 * k + 1];
      const im = this.a[2 * k + 1] * this.b[2 * k] - this.a[2 * k] * this.b[2 * k + 1];
      const size2 = Math.sqrt(re * re + im * im);
      if (size2 === 0) continue;
      const scale = size2 ** -WHITENING;
      product[2 * k] = re * scale;
      product[2 * k + 1] = im * scale;
      total += size2 * scale;
    }
    if (total === 0) return { lag: 0, height: 0 };
    const out = this.a; // done with
    this.fft.inverseTransform(out, product);
    const at = (lag: number) => out[2 * ((lag + size) % size)];
    let best = 0;
    for (let lag = -reach; lag <= reach; lag++) if (at(lag) > at(best)) best = lag;
    const [before, top, after] = [at(best - 1), at(best), at(best + 1)];
    const bend = before - 2 * top + after;
    const shift = bend < 0 ? (0.5 * (before - after)) / bend : 0;
    return { lag: best + shift, height: (top * size) / total };
  }

  private transform(x: Samples, into: Float64Array): void {
    const n = this.length;
    for (let i = 0; i < n; i++) this.input[i] = x[i] * this.window[i];
    this.fft.realTransform(into, this.input);
  }
}
