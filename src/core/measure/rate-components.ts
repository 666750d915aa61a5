import { middleBeside, MOST_BESIDE } from "@/core/dsp/middle-beside";
import { summitNear } from "@/core/dsp/spectral-summit";
import type { AmplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";

export interface RateComponent {
  rateHz: number;
  /** Peak deviation of this component alone, percent. */
  peakPercent: number;
}

const LOWEST_RATE_HZ = 0.2;
const HIGHEST_RATE_HZ = 200;
/** A line counts when it stands this far above the median of its neighbourhood. */
const ABOVE_FLOOR = 5;
/** Weaker lines than this share of the strongest may be the window's own side lobes. */
const WEAKEST_SHARE = 0.01;

/**
 * The strongest sinusoidal components of a Hann-windowed deviation spectrum (fraction per bin), strongest
 * first, interpolated between bins by a parabola through the logarithms.
 */
export function strongestComponents(spectrum: AmplitudeSpectrum, most = 12): RateComponent[] {
  const { amplitude, binHz } = spectrum;
  const line = Math.max(1, Math.round(spectrum.binsPerLine));
  const first = Math.max(2 * line, Math.ceil(LOWEST_RATE_HZ / binHz));
  const last = Math.min(amplitude.length - 2, Math.floor(HIGHEST_RATE_HZ / binHz));
  let strongest = 0;
  for (let k = first; k <= last; k++) strongest = Math.max(strongest, amplitude[k]);
  const found: RateComponent[] = [];
  for (let k = first; k <= last; k++) {
    const a = amplitude[k];
    if (!(a > 0 && a >= WEAKEST_SHARE * strongest)) continue;
    let summit = true;
    for (let j = 1; j <= 2 * line && summit; j++)
      summit = a > (amplitude[k - j] ?? 0) && a >= (amplitude[k + j] ?? 0);
    const beside = { line, lines: MOST_BESIDE, above: 0 };
    if (summit && a >= ABOVE_FLOOR * middleBeside(amplitude, k, beside)) found.push(interpolate(spectrum, k));
  }
  return found.sort((a, b) => b.peakPercent - a.peakPercent).slice(0, most);
}

function interpolate({ amplitude, binHz }: AmplitudeSpectrum, k: number): RateComponent {
  const { shift, height } = summitNear(amplitude, k);
  return { rateHz: (k + shift) * binHz, peakPercent: 100 * height };
}
