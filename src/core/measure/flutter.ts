import { amplitudeSpectrum, rmsBetween, type AmplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { butterworthHighpass, filterInPlace } from "@/core/dsp/filter-section";
import { quantileInPlace } from "@/core/dsp/quantile";
import { flutterWeighting } from "@/core/standards/flutter-weighting";
import { quasiPeak } from "./quasi-peak";
import { strongestComponents, type RateComponent } from "./rate-components";
import type { SteadyStretch } from "./steady-stretch";
import { withoutTrend } from "./without-trend";

/** The four ways a flutter figure is written, percent of the carrier. */
export interface FlutterMeters {
  /** Quasi-peak, IEC 60386 and DIN 45507: ±1 % at 4 Hz reads 1. */
  peakPercent: number;
  /** Magnitude exceeded 5 % of the time, AES6: ±1 % reads 0.997. */
  twoSigmaPercent: number;
  /** Root mean square, JIS C 5551: ±1 % reads 0.707. */
  rmsPercent: number;
  /** Full-wave average in RMS of a sinusoid, NAB: ±1 % reads 0.707. */
  averagePercent: number;
}

export interface FlutterResult {
  weighted: FlutterMeters;
  unweighted: FlutterMeters;
  /** 0.1 to 10 Hz, unweighted. */
  wowRmsPercent: number;
  /** 10 to 200 Hz, unweighted. */
  flutterRmsPercent: number;
  components: RateComponent[];
  /** How much sound the figures rest on. */
  seconds: number;
}

/** Slower changes are drift, not wow; with this corner 0.2 Hz is 0.3 dB down and 0.3 Hz 0.05 dB. */
const DRIFT_CORNER_HZ = 0.1;
/** The filters are run in on this much of the signal, mirrored. */
const RUN_IN_SECONDS = 10;
/** Left out at either end, at most this share of the stretch, so that no meter shows its own settling. */
const SETTLING_SECONDS = { weighted: 4, unweighted: 8 };
const SETTLING_SHARE = { weighted: 0.2, unweighted: 0.3 };
const LONGEST_SPECTRUM_STRETCH = 1 << 16;

/**
 * All standard wow-and-flutter meters of a stretch at once. Percent figures are of the mean carrier.
 * @param stretch deviation from nominal as a fraction; at least a second is needed for sensible figures,
 *   five seconds for the two-sigma value
 */
export function flutterOf({ deviation, rateHz }: Pick<SteadyStretch, "deviation" | "rateHz">): FlutterResult {
  const steady = withoutTrend(deviation);
  const spectrum = spectrumOf(steady, rateHz);
  const run = Math.min(steady.length - 1, Math.round(RUN_IN_SECONDS * rateHz));
  const settled = (path: "weighted" | "unweighted") =>
    run + Math.round(Math.min(SETTLING_SECONDS[path] * rateHz, SETTLING_SHARE[path] * steady.length));

  // Drift is taken out with the filter running from the end to the start: a one-sided pulse then sags
  // before its peak instead of after it, which is what the quasi-peak dynamics are stated for.
  const unweighted = mirrored(steady, run).reverse();
  filterInPlace(unweighted, [butterworthHighpass(DRIFT_CORNER_HZ, rateHz)]).reverse();
  const weighted = filterInPlace(mirrored(steady, run), flutterWeighting(rateHz));

  return {
    weighted: meters(weighted, rateHz, settled("weighted")),
    unweighted: meters(unweighted, rateHz, settled("unweighted")),
    wowRmsPercent: 100 * rmsBetween(spectrum, 0.1, 10),
    flutterRmsPercent: 100 * rmsBetween(spectrum, 10, 200),
    components: strongestComponents(spectrum),
    seconds: steady.length / rateHz,
  };
}

/** Spectrum of the deviation (fraction, peak) with rates from 0 Hz up; fine enough to interpolate lines in. */
function spectrumOf(steady: Float64Array, rateHz: number): AmplitudeSpectrum {
  const used = Math.min(steady.length, LONGEST_SPECTRUM_STRETCH);
  const size = 2 ** Math.ceil(Math.log2(2 * used));
  return amplitudeSpectrum(steady, rateHz, size, used);
}

/** The signal with its first and last `run` samples mirrored in front and behind. */
function mirrored(x: Float64Array, run: number): Float64Array {
  const out = new Float64Array(x.length + 2 * run);
  out.set(x, run);
  for (let i = 0; i < run; i++) {
    out[run - 1 - i] = x[i];
    out[run + x.length + i] = x[x.length - 1 - i];
  }
  return out;
}

/** All four meters of `padded`, leaving out `margin` elements at either end. */
function meters(padded: Float64Array, rateHz: number, margin: number): FlutterMeters {
  const from = margin;
  const to = padded.length - margin;
  const x = padded.subarray(from, to);
  const magnitudes = new Float64Array(x.length);
  let squares = 0;
  let sum = 0;
  for (let i = 0; i < x.length; i++) {
    const hann = 1 - Math.cos((2 * Math.PI * (i + 0.5)) / x.length); // broken turns of slow wow count less
    magnitudes[i] = Math.abs(x[i]);
    squares += hann * x[i] * x[i];
    sum += hann * magnitudes[i];
  }
  return {
    peakPercent: 100 * quasiPeak(padded, rateHz, from, to),
    twoSigmaPercent: 100 * quantileInPlace(magnitudes, 0.95),
    rmsPercent: 100 * Math.sqrt(squares / x.length),
    averagePercent: 100 * (sum / x.length) * (Math.PI / 2 / Math.SQRT2),
  };
}
