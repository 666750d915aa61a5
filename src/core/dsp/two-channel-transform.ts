import { fftWorkspace } from "./fft-workspace";

/**
 * Fourier transforms of two real channels in one complex one: the second rides in the imaginary part, and is taken out
 * again by the symmetry that the transform of a real signal has.
 */
export class TwoChannelTransform {
  constructor(readonly size: number) {}

  /**
   * @param first, @param second the samples, as many as `size` or fewer, which are padded with nought; null for one channel
   * @param take called for each bin from 0 to size/2 with re and im of either channel; it must not transform anything itself
   */
  transform(
    first: ArrayLike<number>,
    second: ArrayLike<number> | null,
    take: (bin: number, re1: number, im1: number, re2: number, im2: number) => void,
  ): void {
    const { size } = this;
    const { fft, input, output } = fftWorkspace(size);
    for (let i = 0; i < size; i++) {
      input[2 * i] = first[i] ?? 0;
      input[2 * i + 1] = second?.[i] ?? 0;
    }
    fft.transform(output, input);
    for (let k = 0; k <= size / 2; k++) {
      const m = k === 0 ? 0 : size - k;
      const [ar, ai, br, bi] = [output[2 * k], output[2 * k + 1], output[2 * m], output[2 * m + 1]];
      take(k, 0.5 * (ar + br), 0.5 * (ai - bi), 0.5 * (ai + bi), 0.5 * (br - ar));
    }
  }
}
