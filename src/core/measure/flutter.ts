import { amplitudeSpectrum, rmsBetween, type AmplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { butterworthHighpass, filterInPlace } from "@/core/dsp/filter-section";
import { quantileInPlace } from "@/core/dsp/quantile";
import { flutterWeighting } from "@/core/standards/flutter-weighting";
import { quasiPeak } from "./quasi-peak";
import { strongestComponents, type RateComponent } from "./rate-components";
import type { Bridge, SteadyStretch } from "./steady-stretch";
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
  /** What each figure may be off by, ± percent at 95 %: by noise, stray tones, bridged places and its short length. */
  uncertainty: FlutterUncertainty;
  /** Why it is not to be kept; null for sound that all arrived. */
  doubt: string | null;
  /** How much sound the figures rest on. */
  seconds: number;
}

/** The meters have to run so long before their figure is kept. */
export const FLUTTER_SETTLED_SECONDS = 10;

/** Why a figure is not to be kept, of whatever source; null where it may be. */
export const flutterNotKept = ({ seconds, doubt }: FlutterResult): string | null =>
  doubt ??
  (seconds < FLUTTER_SETTLED_SECONDS ? "Flutter needs ten steady seconds before it is logged." : null);

/** One ± for every figure of a result. */
export interface FlutterUncertainty {
  weighted: FlutterMeters;
  unweighted: FlutterMeters;
  wowRmsPercent: number;
  flutterRmsPercent: number;
}

/** Slower changes are drift, not wow; with this corner 0.2 Hz is 0.3 dB down and 0.3 Hz 0.05 dB. */
const DRIFT_CORNER_HZ = 0.1;
/** The filters are run in on this much of the signal, mirrored. */
const RUN_IN_SECONDS = 10;
/** Left out at either end, at most this share of the stretch, so that no meter shows its own settling. */
const SETTLING_SECONDS = { weighted: 4, unweighted: 8 };
const SETTLING_SHARE = { weighted: 0.2, unweighted: 0.3 };
const LONGEST_SPECTRUM_STRETCH = 1 << 16;

/** What flutter is read from: the deviation, and where it is known beside it the amplitude and what was bridged. */
export type FlutterStretch = Pick<SteadyStretch, "deviation" | "rateHz"> &
  Partial<Pick<SteadyStretch, "amplitude" | "bridged">>;

type Path = "weighted" | "unweighted";

/**
 * All standard wow-and-flutter meters of a stretch at once. Percent figures are of the mean carrier.
 * @param stretch deviation from nominal as a fraction; at least a second is needed for sensible figures,
 *   five seconds for the two-sigma value
 * @param carrierHz for the share of noise and stray tones in the figures; without it only the rest of the ± is told
 */
export function flutterOf(stretch: FlutterStretch, carrierHz?: number): FlutterResult {
  const { deviation, rateHz, bridged = [] } = stretch;
  const steady = withoutTrend(deviation);
  const spectrum = spectrumOf(steady, rateHz);
  const figures = metersOf(steady, rateHz);
  const wowRmsPercent = 100 * rmsBetween(spectrum, 0.1, 10);
  const flutterRmsPercent = 100 * rmsBetween(spectrum, 10, 200);

  const share = shareOfChance(figures.weightedDeviation, rateHz);
  const added = carrierHz === undefined ? null : addedOf(stretch, carrierHz);
  const without = bridged.length > 0 ? metersOf(silenced(steady, bridged, rateHz), rateHz) : null;
  const off = (path: Path) =>
    eachMeter((meter) => {
      const value = figures[path][meter];
      const noise = added ? Math.min(value, excess(meter, value, added[path])) : 0;
      const bridge = without ? Math.abs(value - without[path][meter]) : 0;
      return Math.hypot(share * value, noise) + bridge;
    });
  const [offWeighted, offUnweighted] = [off("weighted"), off("unweighted")];
  // of the bands no more is added than of the whole, and no more bridged
  const bandOff = (value: number) =>
    Math.hypot(share * value, added ? excess("rmsPercent", value, added.unweighted) : 0) +
    (without ? Math.abs(figures.unweighted.rmsPercent - without.unweighted.rmsPercent) : 0);

  return {
    weighted: figures.weighted,
    unweighted: figures.unweighted,
    wowRmsPercent,
    flutterRmsPercent,
    components: strongestComponents(spectrum),
    uncertainty: {
      weighted: offWeighted,
      unweighted: offUnweighted,
      wowRmsPercent: bandOff(wowRmsPercent),
      flutterRmsPercent: bandOff(flutterRmsPercent),
    },
    doubt: doubtOf(stretch),
    seconds: steady.length / rateHz,
  };
}

const METERS = ["peakPercent", "twoSigmaPercent", "rmsPercent", "averagePercent"] as const;
const eachMeter = (of: (meter: keyof FlutterMeters) => number): FlutterMeters =>
  Object.fromEntries(METERS.map((meter) => [meter, of(meter)])) as unknown as FlutterMeters;

/** A deviation without its trend through both paths, its ends mirrored so that the filters run in. */
function filteredPaths(steady: Float64Array, rateHz: number): Record<Path, Float64Array> {
  const run = runIn(steady, rateHz);
  // Drift is taken out with the filter running from the end to the start: a one-sided pulse then sags
  // before its peak instead of after it, which is what the quasi-peak dynamics are stated for.
  const unweighted = mirrored(steady, run).reverse();
  filterInPlace(unweighted, [butterworthHighpass(DRIFT_CORNER_HZ, rateHz)]).reverse();
  return { weighted: filterInPlace(mirrored(steady, run), flutterWeighting(rateHz)), unweighted };
}

const runIn = (steady: Float64Array, rateHz: number) =>
  Math.min(steady.length - 1, Math.round(RUN_IN_SECONDS * rateHz));

/** What is left out at either end of a filtered path. */
const marginOf = (path: Path, steady: Float64Array, rateHz: number): number =>
  runIn(steady, rateHz) +
  Math.round(Math.min(SETTLING_SECONDS[path] * rateHz, SETTLING_SHARE[path] * steady.length));

/** The meters of a deviation without its trend, and the weighted deviation that they were read from. */
function metersOf(steady: Float64Array, rateHz: number) {
  const paths = filteredPaths(steady, rateHz);
  const read = (path: Path) => meters(paths[path], rateHz, marginOf(path, steady, rateHz));
  const margin = marginOf("weighted", steady, rateHz);
  return {
    weighted: read("weighted"),
    unweighted: read("unweighted"),
    weightedDeviation: paths.weighted.subarray(margin, paths.weighted.length - margin),
  };
}

/** Blocks by which chance is judged: as many as there are of this length, at most this many. */
const CHANCE_BLOCK_SECONDS = 2.5;
const MOST_CHANCE_BLOCKS = 12;
const SHORT_SHARE = 0.3;

/**
 * What another stretch of the same machine may read more or less, as a share at 95 %: from how much the mean square
 * differs between blocks of this one.
 */
function shareOfChance(x: Float64Array, rateHz: number): number {
  const blocks = Math.min(MOST_CHANCE_BLOCKS, Math.floor(x.length / (CHANCE_BLOCK_SECONDS * rateHz)));
  if (blocks < 2) return SHORT_SHARE;
  const size = Math.floor(x.length / blocks);
  const rms = Array.from({ length: blocks }, (_, b) => {
    const block = x.subarray(b * size, (b + 1) * size);
    return Math.sqrt(block.reduce((sum, v) => sum + v * v, 0) / size);
  });
  const mean = rms.reduce((a, b) => a + b, 0) / blocks;
  if (mean === 0) return 0;
  const spread = Math.sqrt(rms.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (blocks - 1)) / mean;
  return Math.min(SHORT_SHARE, (STUDENT[blocks] ?? 2.2) * (spread / Math.sqrt(blocks)));
}
/** Student's factor at 95 % for a mean of so many values. */
const STUDENT: Record<number, number> = { 2: 12.7, 3: 4.3, 4: 3.2, 5: 2.8, 6: 2.6, 7: 2.5, 8: 2.4 };

/**
 * What noise and stray tones beside the carrier read by themselves, RMS percent. Whatever is added to a tone moves its amplitude as
 * much as its phase, so the amplitude tells it: a modulation m of the amplitude stands for a deviation of
 * m′ ÷ (2π · carrier). The tape's own slow fading counts in too, but its rates are so low that it makes next to nothing.
 */
function addedOf({ amplitude, rateHz }: FlutterStretch, carrierHz: number) {
  if (!amplitude || amplitude.length < 3) return null;
  const usual = amplitude.reduce((a, b) => a + b, 0) / amplitude.length;
  if (!(usual > 0)) return null;
  // from step to step, as the frequency is read from the phase, so that fast rates count alike in both
  const perStep = rateHz / (2 * Math.PI * carrierHz * usual);
  const deviation = new Float64Array(amplitude.length);
  for (let i = 0; i + 1 < amplitude.length; i++) deviation[i] = (amplitude[i + 1] - amplitude[i]) * perStep;
  const steady = withoutTrend(deviation);
  const paths = filteredPaths(steady, rateHz);
  const rms = (path: Path) => {
    const margin = marginOf(path, steady, rateHz);
    const x = paths[path].subarray(margin, paths[path].length - margin);
    return 100 * Math.sqrt(x.reduce((sum, v) => sum + v * v, 0) / x.length);
  };
  return { weighted: rms("weighted"), unweighted: rms("unweighted") };
}

/** The quasi-peak of noise, and what it exceeds a twentieth of the time, over its RMS. */
const PEAK_OF_NOISE = 2.5;
const TWO_SIGMA_OF_NOISE = 2;

/** How much of a figure may be what was added, whose RMS is known. Powers add in means; peaks may meet. */
function excess(meter: keyof FlutterMeters, value: number, added: number): number {
  switch (meter) {
    case "rmsPercent":
    case "averagePercent":
      return value - Math.sqrt(Math.max(0, value * value - 1.5 * added * added));
    case "peakPercent":
      return PEAK_OF_NOISE * added;
    case "twoSigmaPercent":
      return TWO_SIGMA_OF_NOISE * added;
  }
}

/** Around a bridged place the filters of the demodulator have seen its edges. */
const BRIDGE_EDGE_SECONDS = 0.05;

/** The deviation with nothing in its bridged places, so that what they have made of the figures shows. */
function silenced(steady: Float64Array, bridged: Bridge[], rateHz: number): Float64Array {
  const edge = Math.round(BRIDGE_EDGE_SECONDS * rateHz);
  const out = Float64Array.from(steady);
  for (const { from, to } of bridged) {
    const [first, last] = [Math.max(0, from - edge), Math.min(out.length, to + edge)];
    // bridged wide from what is sound on either side
    const [a, b] = [out[Math.max(0, first - 1)], out[Math.min(out.length - 1, last)]];
    for (let i = first; i < last; i++) out[i] = a + ((b - a) * (i - first)) / Math.max(1, last - first);
  }
  return out;
}

/** So much lost sound in a stretch makes a figure of what is left. */
const MOST_LOST_PLACES = 3;

function doubtOf({ bridged = [], deviation, rateHz }: FlutterStretch): string | null {
  const lost = bridged.filter((bridge) => bridge.lost).length;
  const seconds = Math.round(deviation.length / rateHz);
  return lost > MOST_LOST_PLACES
    ? `Sound was lost in ${lost} places of the last ${seconds} s: the figure is not kept. Close other programs; it clears by itself.`
    : null;
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
