import type { Samples } from "@/core/dsp/signal";
import { amplitudeDb, powerDb } from "@/core/dsp/decibels";
import { fftWorkspace } from "@/core/dsp/fft-workspace";
import { FirDecimator } from "@/core/dsp/fir-decimator";
import { besselI0, kaiserLowpass } from "@/core/dsp/kaiser-lowpass";
import { median } from "@/core/dsp/quantile";

/** A line of a tone's spectrum at a multiple of its own frequency. */
export interface OrderLine {
  /** The multiple: 3 for the third harmonic; it need not be whole. */
  order: number;
  /** Level re the tone, dB; of a line that is not measurable, a bound that it is below in 97 of 100 cases. */
  levelDb: number;
  percent: number;
  /** What is lower than this, dB re the tone, the noise around it hides. */
  floorDb: number;
  measurable: boolean;
  /** ± at 95 %. */
  uncertaintyDb: number;
}

export interface OrderLines {
  /** Mean over what was heard. */
  frequencyHz: number;
  /** Peak level of the tone, dBFS. */
  levelDbfs: number;
  seconds: number;
  lines: OrderLine[];
}

/** Kaiser window whose side lobes lie 150 dB down; the half width of its main lobe, in cycles per length. */
const BETA = 21;
const LOBE_CYCLES = Math.hypot(BETA, Math.PI) / Math.PI;
/**
 * Places around a line at which there is only noise, so many times and twice as many again apart; mains lines among
 * them are outvoted.
 */
const BESIDE_CYCLES = 4.5;
const BESIDE = [2, 3, 4, 5, 6, 7, 8];
/** The median of exponentially distributed powers re their mean. */
const MEDIAN_SHARE = Math.LN2;
/** Noise alone is so many times its mean power once in 400 lines. */
const HIDDEN_BELOW = 6;
/**
 * A line that noise hides may have been cancelled by it: its amplitude is below what is there and this many times the
 * noise, which a complex Gaussian of that power exceeds in 3 of 100 cases, √(ln(1 ÷ 0.03)).
 */
const BOUND_AMPLITUDES = 1.87;
/** What is kept around the tone for its phase, share of its frequency, and where that has faded out. */
const HALF_WIDTH = 0.2;
const FADED_OUT = 0.3;
const SEARCH = 0.1;
const FEWEST_CYCLES = 60;
const HIGHEST_SHARE = 0.47;
const LONGEST_PIECE = 2 ** 19;
const LEAST_UNCERTAINTY_DB = 0.02;
/** Less of a tone is none. */
const FAINTEST_DBFS = -100;

/**
 * Lines at multiples of a tone's frequency by order tracking: the phase of the tone itself is followed, and the sound is
 * summed over that phase instead of over time, so that flutter smears neither the harmonics nor the tone into them.
 * What is beside each line tells how much of it is noise.
 * @param x one channel; longer than eleven seconds it is taken in pieces that are summed in phase
 * @param nearHz where the tone is sought, within a tenth
 * @param orders which multiples; those too high for the sample rate are left out
 * @returns null where there is no tone, or too little of it
 */
export function orderLines(
  x: Samples,
  sampleRateHz: number,
  nearHz: number,
  orders: readonly number[],
): OrderLines | null {
  const { samples, rateHz } = slowed(x, sampleRateHz, nearHz * Math.max(...orders));
  const count = Math.max(1, Math.ceil(samples.length / LONGEST_PIECE));
  const pieces = Array.from({ length: count }, (_, p) =>
    samples.subarray(
      Math.round((p * samples.length) / count),
      Math.round(((p + 1) * samples.length) / count),
    ),
  );
  if ((pieces[0].length / rateHz) * nearHz < FEWEST_CYCLES) return null;
  const sums = pieces.map((piece) => pieceSums(piece, rateHz, nearHz, orders));
  const mean = (of: (sum: PieceSums) => number) => sums.reduce((total, sum) => total + of(sum), 0) / count;
  const tone = mean(({ tone }) => tone);
  // silence has no phase to follow
  if (!(amplitudeDb(tone) > FAINTEST_DBFS)) return null;
  const levelDbfs = amplitudeDb(tone);
  const frequencyHz = mean((sum) => sum.frequencyHz);
  const lines = orders.flatMap((order, i): OrderLine[] => {
    if (order * frequencyHz > HIGHEST_SHARE * sampleRateHz) return [];
    const power = mean(({ lines }) => lines[i].re) ** 2 + mean(({ lines }) => lines[i].im) ** 2;
    const noise = mean(({ lines }) => lines[i].noise) / count;
    const measurable = power > HIDDEN_BELOW * noise;
    const own = measurable ? power - noise : (Math.sqrt(power) + BOUND_AMPLITUDES * Math.sqrt(noise)) ** 2;
    return [
      {
        order,
        levelDb: powerDb(own / tone ** 2),
        percent: (100 * Math.sqrt(own)) / tone,
        floorDb: powerDb((HIDDEN_BELOW * noise) / tone ** 2),
        measurable,
        uncertaintyDb: Math.hypot(LEAST_UNCERTAINTY_DB, offByNoiseDb(Math.sqrt(noise / 2 / own))),
      },
    ];
  });
  return { frequencyHz, levelDbfs, seconds: x.length / sampleRateHz, lines };
}

/**
 * What noise may do to a level at 95 %, dB, downwards, where it does more. Half of its power lies along the line.
 * @param share standard deviation of that half re the amplitude of the line
 */
const offByNoiseDb = (share: number): number => -20 * Math.log10(Math.max(LEAST_LEFT, 1 - 2 * share));
const LEAST_LEFT = 0.1;

/** The sound at as low a rate as its highest line allows, for speed alone. */
function slowed(x: Samples, rate: number, highestHz: number): { samples: Samples; rateHz: number } {
  const needs = highestHz * (1 + SEARCH);
  const factor = Math.floor(rate / (LEAST_RATE * needs));
  if (factor < 2) return { samples: x, rateHz: rate };
  const taps = kaiserLowpass(rate, needs, rate / factor - needs, STOP_DB);
  return { samples: new FirDecimator(taps, factor).push(x).re, rateHz: rate / factor };
}
const LEAST_RATE = 2.6;
const STOP_DB = 150;

interface PieceSums {
  frequencyHz: number;
  /** Amplitude of the tone; the phase of its own track is nought by its making. */
  tone: number;
  lines: Array<{ re: number; im: number; noise: number }>;
}

function pieceSums(x: Samples, rate: number, nearHz: number, orders: readonly number[]): PieceSums {
  const { phase, fromCycles, cycles } = tonePhase(x, rate, nearHz);
  // each sample under a window over the cycles that have passed, for the step of them that it stands for
  const weighed = new Float64Array(x.length);
  const [slowRe, slowIm] = [new Float64Array(x.length), new Float64Array(x.length)];
  let whole = 0;
  for (let i = 1; i + 1 < x.length; i++) {
    const passed = (phase[i] - fromCycles) / cycles;
    if (passed <= 0 || passed >= 1) continue;
    const step = (phase[i + 1] - phase[i - 1]) / 2;
    const weight = step * besselI0(BETA * Math.sqrt(1 - (2 * passed - 1) ** 2));
    whole += weight;
    weighed[i] = weight * x[i];
    const angle = 2 * Math.PI * BESIDE_CYCLES * passed;
    slowRe[i] = Math.cos(angle);
    slowIm[i] = Math.sin(angle);
  }
  const slow = { re: slowRe, im: slowIm };
  const frequencyHz = (cycles * rate) / x.length;
  const at = (order: number) => sumsAt(order, { phase, weighed, slow, scale: 2 / whole });
  const { re, im } = at(1).line;
  return {
    frequencyHz,
    tone: Math.hypot(re, im),
    lines: orders.map((order) => {
      if (order * nearHz > 0.5 * rate) return { re: 0, im: 0, noise: 0 };
      const { line, beside } = at(order);
      const noise = beside
        .map(({ cycles: away, power }) => ({ at: order + away / cycles, power }))
        .filter(({ at: near }) => Math.abs(near - 1) * cycles > LOBE_CYCLES && near > 0)
        .map(({ power }) => power);
      return { ...line, noise: median(noise) / MEDIAN_SHARE };
    }),
  };
}

interface Weighed {
  phase: Float64Array;
  weighed: Float64Array;
  /** Turns `BESIDE_CYCLES` times while the tone passes once through. */
  slow: { re: Float64Array; im: Float64Array };
  scale: number;
}

/** The complex amplitude at an order, and the powers beside it. */
function sumsAt(order: number, { phase, weighed, slow, scale }: Weighed) {
  let [re, im] = [0, 0];
  // sums of z·cos θ and z·sin θ, four numbers for each place beside
  const sums = new Float64Array(4 * BESIDE.length);
  for (let i = 0; i < weighed.length; i++) {
    const value = weighed[i];
    if (value === 0) continue;
    const turns = order * phase[i];
    const angle = 2 * Math.PI * (turns - Math.floor(turns));
    const a = value * Math.cos(angle);
    const b = -value * Math.sin(angle);
    re += a;
    im += b;
    const c = slow.re[i];
    const s = slow.im[i];
    let cos = c;
    let sin = s;
    for (let k = 0; k < sums.length; k += 4) {
      const turned = cos * c - sin * s;
      sin = cos * s + sin * c;
      cos = turned;
      sums[k] += a * cos;
      sums[k + 1] += b * cos;
      sums[k + 2] += a * sin;
      sums[k + 3] += b * sin;
    }
  }
  const power = (x: number, y: number) => scale * scale * (x * x + y * y);
  return {
    line: { re: scale * re, im: scale * im },
    // z·e^(∓jθ)
    beside: BESIDE.flatMap((times, i) => {
      const [cosRe, cosIm, sinRe, sinIm] = sums.subarray(4 * i, 4 * i + 4);
      const cycles = times * BESIDE_CYCLES;
      return [
        { cycles, power: power(cosRe + sinIm, cosIm - sinRe) },
        { cycles: -cycles, power: power(cosRe - sinIm, cosIm + sinRe) },
      ];
    }),
  };
}

/** The tone's own phase in cycles, sample by sample, from the band around it cut out of the Fourier transform. */
function tonePhase(x: Samples, rate: number, nearHz: number) {
  const size = 2 ** Math.ceil(Math.log2(x.length));
  const { fft, input, output } = fftWorkspace(size);
  for (let i = 0; i < size; i++) {
    input[2 * i] = x[i] ?? 0;
    input[2 * i + 1] = 0;
  }
  fft.transform(output, input);
  const binHz = rate / size;
  let [middle, most] = [0, -1];
  for (let k = Math.ceil((nearHz * (1 - SEARCH)) / binHz); k <= (nearHz * (1 + SEARCH)) / binHz; k++) {
    const power = output[2 * k] ** 2 + output[2 * k + 1] ** 2;
    if (power > most) [middle, most] = [k, power];
  }
  input.fill(0);
  const edge = FADED_OUT * middle;
  for (let k = Math.ceil(middle - edge); k <= middle + edge && k < size / 2; k++) {
    const beyond = (Math.abs(k - middle) / middle - HALF_WIDTH) / (FADED_OUT - HALF_WIDTH);
    const gain = beyond <= 0 ? 1 : 0.5 * (1 + Math.cos(Math.PI * Math.min(1, beyond)));
    input[2 * k] = gain * output[2 * k];
    input[2 * k + 1] = gain * output[2 * k + 1];
  }
  fft.inverseTransform(output, input);
  const phase = new Float64Array(x.length);
  let [turns, last] = [0, 0];
  for (let i = 0; i < x.length; i++) {
    const angle = Math.atan2(output[2 * i + 1], output[2 * i]) / (2 * Math.PI);
    // it never goes back: by less than half a cycle from sample to sample
    if (i > 0) turns += angle - last - Math.round(angle - last);
    else turns = angle;
    last = angle;
    phase[i] = turns;
  }
  return { phase, fromCycles: phase[0], cycles: phase[x.length - 1] - phase[0] };
}
