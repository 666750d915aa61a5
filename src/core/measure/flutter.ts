import { meanOf } from "@/core/dsp/mean";
import { rmsBetween } from "@/core/dsp/amplitude-spectrum";
import { kept, stepsOf, valuesOf, type Values } from "@/core/dsp/values";
import { readPath, rmsOf, rmsThrough, type FlutterMeters } from "./flutter-meters";
import { readPlaces, type FlutterPath } from "./flutter-paths";
import { flutterSpectrum } from "./flutter-spectrum";
import { strongestComponents, type RateComponent } from "./rate-components";
import type { Bridge, SteadyStretch } from "./steady-stretch";
import { bridgedValues } from "./bridged-values";
import { valuesWithoutTrend } from "./without-trend";

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

/** What flutter is read from: the deviation, and where it is known beside it the amplitude and what was bridged. */
export type FlutterStretch = Pick<SteadyStretch, "deviation" | "rateHz"> &
  Partial<Pick<SteadyStretch, "amplitude" | "bridged">>;

/**
 * All standard wow-and-flutter meters of a stretch at once. Percent figures are of the mean carrier.
 * @param stretch deviation from nominal as a fraction; at least a second is needed for sensible figures,
 *   five seconds for the two-sigma value
 * @param carrierHz for the share of noise and stray tones in the figures; without it only the rest of the ± is told
 */
export function flutterOf(stretch: FlutterStretch, carrierHz?: number): FlutterResult {
  const { deviation, rateHz, bridged = [] } = stretch;
  const steady = kept(valuesWithoutTrend(valuesOf(deviation)));
  const spectrum = flutterSpectrum(steady, rateHz);
  const reads = readPaths(steady, rateHz);
  const figures = { weighted: reads.weighted.meters, unweighted: reads.unweighted.meters };
  const wowRmsPercent = 100 * rmsBetween(spectrum, 0.1, 10);
  const flutterRmsPercent = 100 * rmsBetween(spectrum, 10, 200);

  const share = shareOfChance(reads.weighted.blocksRms);
  const added = carrierHz === undefined ? null : addedOf(stretch, carrierHz);
  const without = bridged.length > 0 ? readPaths(silenced(steady, bridged, rateHz), rateHz) : null;
  const off = (path: FlutterPath) =>
    eachMeter((meter) => {
      const value = figures[path][meter];
      const noise = added ? Math.min(value, excess(meter, value, added[path])) : 0;
      const bridge = without ? Math.abs(value - without[path].meters[meter]) : 0;
      return Math.hypot(share * value, noise) + bridge;
    });
  const [offWeighted, offUnweighted] = [off("weighted"), off("unweighted")];
  // of the bands no more is added than of the whole, and no more bridged
  const bandOff = (value: number) =>
    Math.hypot(share * value, added ? excess("rmsPercent", value, added.unweighted) : 0) +
    (without ? Math.abs(figures.unweighted.rmsPercent - without.unweighted.meters.rmsPercent) : 0);

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

const readPaths = (steady: Values, rateHz: number) => ({
  weighted: readPath("weighted", steady, rateHz),
  unweighted: readPath("unweighted", steady, rateHz),
});

const SHORT_SHARE = 0.3;

/**
 * What another stretch of the same machine may read more or less, as a share at 95 %: from how much the mean square
 * differs between blocks of this one.
 */
function shareOfChance(rms: readonly number[]): number {
  const blocks = rms.length;
  if (blocks < 2) return SHORT_SHARE;
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
  const usual = meanOf(amplitude);
  if (!(usual > 0)) return null;
  // from step to step, as the frequency is read from the phase, so that fast rates count alike in both; steps hold next to
  // nothing slow: there is no drift to be taken out
  const steps = stepsOf(amplitude, rateHz / (2 * Math.PI * carrierHz * usual));
  return {
    weighted: 100 * rmsThrough("weighted", steps, rateHz),
    unweighted: 100 * rmsOf(steps, readPlaces("unweighted", steps.length, rateHz)),
  };
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
const silenced = (steady: Values, bridged: Bridge[], rateHz: number): Values =>
  bridgedValues(steady, bridged, Math.round(BRIDGE_EDGE_SECONDS * rateHz));

/** So much lost sound in a stretch makes a figure of what is left. */
const MOST_LOST_PLACES = 3;

function doubtOf({ bridged = [], deviation, rateHz }: FlutterStretch): string | null {
  const lost = bridged.filter((bridge) => bridge.lost).length;
  const seconds = Math.round(deviation.length / rateHz);
  return lost > MOST_LOST_PLACES
    ? `Sound was lost in ${lost} places of the last ${seconds} s: the figure is not kept. Close other programs; it clears by itself.`
    : null;
}
