import { fftWorkspace } from "./fft-workspace";
import { hannWindow } from "./hann-window";
import type { Samples } from "./signal";
import { valuesOf, type Values } from "./values";

export interface AmplitudeSpectrum {
  binHz: number;
  /** Peak amplitude per bin: a sinusoid on a bin reads its own amplitude. */
  amplitude: Float64Array;
  /** Bins per resolved line: how much finer the bins are than the stretch resolves. */
  binsPerLine: number;
}

/**
 * Hann-windowed amplitude spectrum, the power averaged over half-overlapping stretches of `stretch` samples
 * (Welch 1967), each padded with zeros to `size`. A signal shorter than `stretch` is one stretch.
 * @param size a power of two, at least `stretch`
 * @param bins only so many are told, the lowest; all up to half the sample rate unless said otherwise
 */
export const amplitudeSpectrum = (
  x: Samples,
  sampleRateHz: number,
  size: number,
  stretch = size,
  bins = size / 2 + 1,
): AmplitudeSpectrum => spectrumByPieces(valuesOf(x), sampleRateHz, size, stretch, bins);

/** The same of values that are read one stretch after the other. */
export function spectrumByPieces(
  values: Values,
  sampleRateHz: number,
  size: number,
  stretch = size,
  bins = size / 2 + 1,
): AmplitudeSpectrum {
  const used = Math.min(stretch, values.length);
  const { fft, input, output } = fftWorkspace(size);
  const window = hannWindow(used);
  input.fill(0);
  const power = new Float64Array(Math.min(bins, size / 2 + 1));
  const hop = Math.max(1, used >> 1);
  let averages = 0;
  const piece = new Float64Array(used);
  for (let start = 0; start + used <= values.length; start += hop) {
    values.read(start, piece);
    for (let i = 0; i < used; i++) input[i] = piece[i] * window[i];
    fft.realTransform(output, input);
    for (let k = 0; k < power.length; k++) {
      const re = output[2 * k];
      const im = output[2 * k + 1];
      power[k] += re * re + im * im;
    }
    averages++;
  }
  const scale = 2 / used;
  for (let k = 0; k < power.length; k++) power[k] = scale * Math.sqrt(power[k] / Math.max(1, averages));
  return { binHz: sampleRateHz / size, amplitude: power, binsPerLine: size / used };
}

/** RMS of what lies from `fromHz` up to `toHz` (Hann window: 1.5 lines of noise bandwidth). */
export function rmsBetween(spectrum: AmplitudeSpectrum, fromHz: number, toHz: number): number {
  const { amplitude, binHz, binsPerLine } = spectrum;
  let sum = 0;
  for (let k = Math.ceil(fromHz / binHz); k < Math.min(amplitude.length, toHz / binHz); k++)
    sum += amplitude[k] * amplitude[k];
  return Math.sqrt(sum / 2 / (1.5 * binsPerLine));
}
