import { twoChannelTransform } from "./two-channel-transform";

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
  private readonly first: Float64Array;
  private readonly second: Float64Array;
  private readonly window: Float64Array;

  constructor(readonly size: number) {
    this.first = new Float64Array(size);
    this.second = new Float64Array(size);
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
    const { size, window, left, right, leftPower, rightPower } = this;
    for (let i = 0; i < size; i++) {
      this.first[i] = first[at + i] * window[i];
      this.second[i] = second === null ? 0 : second[at + i] * window[i];
    }
    twoChannelTransform(size, this.first, second === null ? null : this.second, left, right);
    for (let k = 0; k <= size / 2; k++) {
      const [a, b] = [2 * k, 2 * k + 1];
      leftPower[k] = left[a] * left[a] + left[b] * left[b];
      rightPower[k] = right[a] * right[a] + right[b] * right[b];
      // phases from the start of the window to its middle
      if (k % 2 === 0) continue;
      left[a] = -left[a];
      left[b] = -left[b];
      right[a] = -right[a];
      right[b] = -right[b];
    }
  }
}
