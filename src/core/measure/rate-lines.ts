import { spectrumByPieces, type AmplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { middleBeside, MOST_BESIDE } from "@/core/dsp/middle-beside";
import { summitNear } from "@/core/dsp/spectral-summit";
import { kept, type Values } from "@/core/dsp/values";
import type { SteadyStretch } from "./steady-stretch";
import { evenInTape } from "./even-in-tape";
import { valuesWithoutTrend } from "./without-trend";

/** One line of the rate spectrum of a deviation. */
export interface RateLine {
  rateHz: number;
  /** Mean square of the deviation that the line stands for, as a fraction squared. */
  power: number;
  /** How far the line stands above the noise beside it, in power. */
  aboveFloor: number;
}

export interface RateLines {
  lines: RateLine[];
  /** Mean square of the whole deviation, as a fraction squared, over the same rates. */
  totalPower: number;
  /** Two lines closer than this cannot be told apart. */
  resolutionHz: number;
  spectrum: AmplitudeSpectrum;
  /** The deviation at even steps of tape, which all this was read from. */
  even: Values;
}

const LOWEST_RATE_HZ = 0.1;
const HIGHEST_RATE_HZ = 200;
const LONGEST_STRETCH = 1 << 17;
/** Of noise with a Rayleigh amplitude, one bin in e²⁰ stands so far above the mean. */
const ABOVE_FLOOR = 20;
/** Lines of less peak deviation are the measurement's own. */
const SMALLEST_PEAK = 1e-5;
/** Side lobes of a Hann window, and what flutter makes of a strong line, stay below this share of it. */
const SIDE_LOBE_REACH = 6;
const SIDE_LOBE_SHARE = 0.03;

/**
 * All lines of the rate spectrum from 0.1 to 200 Hz, lowest rate first. The deviation is read at even steps of tape,
 * not of time, so that a part that turns with the tape stays one sharp line while the speed drifts.
 */
export function rateLines({ deviation, rateHz }: Pick<SteadyStretch, "deviation" | "rateHz">): RateLines {
  const even = kept(evenInTape(deviation));
  const used = Math.min(even.length, LONGEST_STRETCH);
  const size = 2 * 2 ** Math.ceil(Math.log2(used));
  const spectrum = spectrumByPieces(valuesWithoutTrend(even), rateHz, size, used);
  const { amplitude, binHz, binsPerLine: line } = spectrum;
  const first = Math.max(Math.ceil(2 * line), Math.ceil(LOWEST_RATE_HZ / binHz));
  const last = Math.min(amplitude.length - 2, Math.floor(HIGHEST_RATE_HZ / binHz));
  // power per bin such that a sum over bins is a mean square (Hann: 1.5 lines of noise bandwidth)
  const power = amplitude.map((a) => (a * a) / 2 / (1.5 * line));
  let totalPower = 0;
  for (let k = Math.ceil(LOWEST_RATE_HZ / binHz); k <= last; k++) totalPower += power[k];

  const summits: Array<{ bin: number; floor: number }> = [];
  for (let k = first; k <= last; k++) {
    if (amplitude[k] < SMALLEST_PEAK || !isSummit(amplitude, k, Math.round(1.4 * line))) continue;
    const floor = floorAround(power, k, line);
    if (power[k] > ABOVE_FLOOR * floor && !besideStronger(amplitude, k, line))
      summits.push({ bin: k, floor });
  }
  const lines = summits.map(({ bin, floor }, i): RateLine => {
    const before = summits[i - 1]?.bin ?? -Infinity;
    const after = summits[i + 1]?.bin ?? Infinity;
    const { shift, height: peak } = summitNear(amplitude, bin);
    const alone = Math.min(bin - before, after - bin) / line;
    let sum = 0;
    // a line whose part slips or wanders a little is wider than the window makes it
    const reach = Math.round((alone > 9 ? 4.5 : 2.5) * line);
    for (let k = Math.max(1, bin - reach); k <= bin + reach; k++) sum += power[k] - floor;
    return {
      rateHz: (bin + shift) * binHz,
      power: alone > 5 ? Math.max(sum, 0) : (peak * peak) / 2,
      aboveFloor: power[bin] / floor,
    };
  });
  return { lines, totalPower, resolutionHz: 1.5 * line * binHz, spectrum, even };
}

function isSummit(amplitude: Float64Array, k: number, reach: number): boolean {
  for (let j = 1; j <= reach; j++)
    if (amplitude[k] <= (amplitude[k - j] ?? 0) || amplitude[k] < (amplitude[k + j] ?? 0)) return false;
  return true;
}

function besideStronger(amplitude: Float64Array, k: number, line: number): boolean {
  const reach = Math.round(SIDE_LOBE_REACH * line);
  for (let j = Math.max(0, k - reach); j <= k + reach; j++)
    if (amplitude[k] < SIDE_LOBE_SHARE * (amplitude[j] ?? 0)) return true;
  return false;
}

/** Mean power of the noise beside a bin, from the median of its neighbourhood (exponential: median = mean · ln 2). */
export function floorAround(power: Float64Array, k: number, line: number): number {
  const lines = Math.min(MOST_BESIDE, Math.max(8, k / line / 2));
  const middle = middleBeside(power, k, { line, lines, above: line });
  return Math.max(1e-20, middle / Math.LN2);
}
