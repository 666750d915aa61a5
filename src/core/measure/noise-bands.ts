import { NOISE_TO_HZ } from "@/core/dsp/periodic-noise";
import { seriesBetween } from "./wide-levels";

const LOWEST_HZ = 31;
const HIGHEST_SHARE = 0.44;
/** Below this every second frequency is left out and the bands are a third of an octave wide, above a sixth. */
const WIDE_BELOW_HZ = 400;
const HALF_WIDE_OCTAVES = 1 / 6;
const HALF_NARROW_OCTAVES = 1 / 12;

/** Of half overlapping Hann windows each bin of each frame counts as so much of an independent one (Welch 1967). */
export const INDEPENDENT_SHARE = 0.49;

/** Middle of the highest band that noise up to a frequency fills, at most. */
const highestMiddleHz = (toHz: number): number => toHz / 2 ** HALF_NARROW_OCTAVES;

/** Upper end of the highest band of noise that was sent. */
export const NOISE_BANDS_TO_HZ =
  Math.max(...seriesBetween(LOWEST_HZ, highestMiddleHz(NOISE_TO_HZ))) * 2 ** HALF_NARROW_OCTAVES;

/** A band of noise, by the bins of a transform that lie in it. */
export interface NoiseBand {
  frequencyHz: number;
  bins: number[];
}

/**
 * The bands that noise is measured in, at the frequencies of the R 20 series.
 * @param speedRatio of the tape that plays it: the bands lie so much higher in what is heard
 * @param toHz where the noise ends, at right speed: no band reaches beyond it
 */
export function noiseBands(sampleRateHz: number, size: number, speedRatio = 1, toHz = Infinity): NoiseBand[] {
  const binHz = sampleRateHz / size / speedRatio;
  const highestHz = Math.min((HIGHEST_SHARE * sampleRateHz) / speedRatio, highestMiddleHz(toHz));
  return seriesBetween(LOWEST_HZ, highestHz)
    .filter((hz) => hz > WIDE_BELOW_HZ || Math.round(20 * Math.log10(hz)) % 2 === 0)
    .map((frequencyHz) => {
      const half = frequencyHz > WIDE_BELOW_HZ ? HALF_NARROW_OCTAVES : HALF_WIDE_OCTAVES;
      const from = Math.ceil((frequencyHz * 2 ** -half) / binHz);
      const to = Math.floor((frequencyHz * 2 ** half) / binHz);
      return { frequencyHz, bins: Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i) };
    });
}
