import FFT from "fft.js";

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
  private readonly fft: FFT;
  private readonly input: number[];
  private readonly output: number[];
  private readonly window: Float64Array;

  constructor(readonly size: number) {
    this.fft = new FFT(size);
    this.input = new Array<number>(2 * size).fill(0);
    this.output = this.fft.createComplexArray();
    this.left = new Float64Array(size + 2);
    this.right = new Float64Array(size + 2);
    this.leftPower = new Float64Array(size / 2 + 1);
    this.rightPower = new Float64Array(size / 2 + 1);
    const scale = 2 / size / Math.sqrt(1.5);
    this.window = Float64Array.from(
      { length: size },
      (_, i) => scale * (1 - Math.cos((2 * Math.PI * i) / size)),
    );
  }

  /** Transforms `size` samples from `at`; without a second channel `right` stays zero. */
  transform(first: Float64Array, second: Float64Array | null, at: number): void {
    const { size, input, output, window, left, right, leftPower, rightPower } = this;
    for (let i = 0; i < size; i++) {
      input[2 * i] = first[at + i] * window[i];
      input[2 * i + 1] = second === null ? 0 : second[at + i] * window[i];
    }
    this.fft.transform(output, input);
    for (let k = 0; k <= size / 2; k++) {
      const m = k === 0 ? 0 : size - k;
      const sign = k % 2 === 0 ? 0.5 : -0.5;
      const ar = output[2 * k];
      const ai = output[2 * k + 1];
      const br = output[2 * m];
      const bi = output[2 * m + 1];
      const lr = (left[2 * k] = sign * (ar + br));
      const li = (left[2 * k + 1] = sign * (ai - bi));
      const rr = (right[2 * k] = sign * (ai + bi));
      const ri = (right[2 * k + 1] = sign * (br - ar));
      leftPower[k] = lr * lr + li * li;
      rightPower[k] = rr * rr + ri * ri;
    }
  }
}
