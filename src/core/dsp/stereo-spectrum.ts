import { Fft } from "./fft";
import type { Samples } from "./signal";
import { sampled } from "./sampled";

/**
 * Hann-windowed spectra of one or two channels at once: the second rides in the imaginary part of one complex
 * transform. Phases belong to the middle of the window, where the window's own spectrum is real, so that the
 * phase of a tone can be read at any bin of its main lobe.
 */
export class StereoSpectrum {
  /** Interleaved re, im of bins 0 … size/2 per channel, scaled so that the power sum over a sine's main lobe is its squared amplitude. */
  left: Float64Array;
  right: Float64Array;
  readonly leftPower: Float64Array;
  readonly rightPower: Float64Array;
  private readonly window: Float64Array;
  private readonly silence: Float64Array;

  constructor(readonly size: number) {
    this.left = new Float64Array(size + 2);
    this.right = new Float64Array(size + 2);
    this.leftPower = new Float64Array(size / 2 + 1);
    this.rightPower = new Float64Array(size / 2 + 1);
    this.silence = new Float64Array(size);
    const scale = 2 / size / Math.sqrt(1.5);
    this.window = sampled(size, (i) => scale * (1 - Math.cos((2 * Math.PI * i) / size)));
  }

  /** Transforms `size` samples from `at`; without a second channel `right` stays zero. */
  transform(first: Samples, second: Samples | null, at: number): void {
    const { size, window, silence } = this;
    const cut = (x: Samples) => x.subarray(at, at + size);
    Fft.kept(size).ofTwoWindowed(cut(first), second ? cut(second) : silence, window, this);
  }
}
