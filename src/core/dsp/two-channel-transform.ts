import { fftWorkspace } from "./fft-workspace";

/**
 * Fourier transform of two real channels in one complex one: the second rides in the imaginary part, and is taken out
 * again by the symmetry that the transform of a real signal has.
 * @param first, @param second the samples, as many as `size` or fewer, which are padded with nought; null for one channel
 * @param left, @param right take interleaved re, im of bins 0 to size/2 of either channel: `size + 2` numbers each
 */
export function twoChannelTransform(
  size: number,
  first: Float64Array,
  second: Float64Array | null,
  left: Float64Array,
  right: Float64Array,
): void {
  const { fft, input, output } = fftWorkspace(size);
  const [ends, secondEnds] = [Math.min(size, first.length), Math.min(size, second?.length ?? 0)];
  for (let i = 0; i < size; i++) {
    input[2 * i] = i < ends ? first[i] : 0;
    input[2 * i + 1] = second !== null && i < secondEnds ? second[i] : 0;
  }
  fft.transform(output, input);
  for (let k = 0; k <= size; k += 2) {
    const m = k === 0 ? 0 : 2 * size - k;
    const ar = output[k];
    const ai = output[k + 1];
    const br = output[m];
    const bi = output[m + 1];
    left[k] = 0.5 * (ar + br);
    left[k + 1] = 0.5 * (ai - bi);
    right[k] = 0.5 * (ai + bi);
    right[k + 1] = 0.5 * (br - ar);
  }
}
