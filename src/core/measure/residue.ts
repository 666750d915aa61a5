import { powerDb } from "@/core/dsp/decibels";
import { fftWorkspace } from "@/core/dsp/fft-workspace";
import { FirDecimator } from "@/core/dsp/fir-decimator";
import { hannWindow } from "@/core/dsp/hann-window";
import { kaiserLowpass } from "@/core/dsp/kaiser-lowpass";
import type { Samples } from "@/core/dsp/signal";

/** What is left of a tone that was erased. */
export interface Residue {
  /** dBFS of a sine as strong; at most that where noise hides it. */
  levelDbfs: number;
  /** ± at 95 %. */
  uncertaintyDb: number;
  measurable: boolean;
  /** Everything in the filter, noise too. */
  allDbfs: number;
}

/** Half width of the filter: the flutter of the machine that made it stays inside. */
const HALF_WIDTH = 0.012;
const LEAST_HALF_WIDTH_HZ = 4;
/** On both sides of it the noise around is heard, between these shares of the frequency, or farther out for a low tone. */
const NOISE_FROM = 0.02;
const NOISE_TO = 0.07;
const NOISE_FROM_HALVES = 2;
const NOISE_TO_HALVES = 4;
const SHORTEST_SECONDS = 1;
/** Of a spectrum of a Hann window each bin counts as so much of an independent one. */
const INDEPENDENT_SHARE = 0.65;
/** It stands out of the noise by so many times what chance makes of that. */
const STANDS_OUT = 3;
const STOPPED_DB = 80;

/**
 * What is left of a tone in a stretch of what should be silence, by a narrow filter: the power around its frequency less
 * that of the noise on both sides. What lies around it is cut out first, at as low a rate as holds it.
 * @returns null for less than a second, and for a tone that lies too near to nought or to half the sample rate
 */
export function residueOf(x: Samples, sampleRateHz: number, hz: number): Residue | null {
  const half = Math.max(LEAST_HALF_WIDTH_HZ, HALF_WIDTH * hz);
  const noiseFrom = Math.max(NOISE_FROM_HALVES * half, NOISE_FROM * hz);
  const noiseTo = Math.max(NOISE_TO_HALVES * half, NOISE_TO * hz);
  if (x.length < SHORTEST_SECONDS * sampleRateHz) return null;
  if (hz <= noiseTo || hz + noiseTo >= sampleRateHz / 2) return null;
  const low = around(x, sampleRateHz, hz, noiseTo);
  const count = low.re.length;
  const size = 2 ** Math.ceil(Math.log2(count));
  const { fft, input, output } = fftWorkspace(size);
  input.fill(0);
  // a Hann window with a mean square of 1, so that the power of noise is kept
  const window = hannWindow(count);
  for (let i = 0; i < count; i++) {
    input[2 * i] = low.re[i] * Math.sqrt(2 / 3) * window[i];
    input[2 * i + 1] = low.im[i] * Math.sqrt(2 / 3) * window[i];
  }
  fft.transform(output, input);
  const binHz = low.rateHz / size;
  /** Sum of a sine's squared amplitude over its bins, counted from the tone; at the low rate they come around in a circle. */
  const between = (from: number, to: number) => {
    let [sum, bins] = [0, 0];
    for (let k = Math.ceil((hz + from) / binHz); k <= (hz + to) / binHz; k++) {
      const at = 2 * (k % size);
      sum += output[at] ** 2 + output[at + 1] ** 2;
      bins++;
    }
    return { power: (4 * sum) / size / count, bins };
  };
  const inside = between(-half, half);
  const [below, above] = [between(-noiseTo, -noiseFrom), between(noiseFrom, noiseTo)];
  const noise = (inside.bins * (below.power + above.power)) / (below.bins + above.bins);
  const resolved = (size / count) * (1 / INDEPENDENT_SHARE);
  const chance = noise / Math.sqrt(Math.max(1, inside.bins / resolved));
  const power = inside.power - noise;
  const measurable = power > STANDS_OUT * chance;
  const levelDbfs = powerDb(measurable ? power : Math.max(power, 0) + 2 * chance);
  // beside a tone its noise adds up with it: of the tone's own power twice the root of both
  const spread = Math.sqrt(chance ** 2 + (2 * power * noise) / Math.max(1, inside.bins / resolved));
  return {
    levelDbfs,
    uncertaintyDb: measurable ? (2 * 4.343 * spread) / power : Infinity,
    measurable,
    allDbfs: powerDb(inside.power),
  };
}

/** Lines of the mains this near to a tone lie in its filter. */
const MAINS_NEAR_SHARE = 0.6;
/** A line of the mains is about as strong as its neighbours in the series, or weaker, dB. */
const LIKE_ITS_NEIGHBOURS_DB = 10;

/**
 * What is left of a tone where a line of the mains may lie on it: where its neighbours in the series are about as strong,
 * it may all be hum, and the residue is at most that.
 * @param mainsHz as found in the same sound; null where there is no hum
 */
export function residueBesideHum(
  x: Samples,
  sampleRateHz: number,
  hz: number,
  mainsHz: number | null,
): Residue | null {
  const residue = residueOf(x, sampleRateHz, hz);
  if (residue === null || mainsHz === null || !residue.measurable) return residue;
  const order = Math.round(hz / mainsHz);
  const half = Math.max(LEAST_HALF_WIDTH_HZ, HALF_WIDTH * hz);
  if (Math.abs(order * mainsHz - hz) > MAINS_NEAR_SHARE * half) return residue;
  const isHum = [order - 2, order - 1, order + 1, order + 2].some((other) => {
    const beside = residueOf(x, sampleRateHz, other * mainsHz);
    return beside?.measurable && beside.levelDbfs > residue.levelDbfs - LIKE_ITS_NEIGHBOURS_DB;
  });
  return isHum
    ? { ...residue, levelDbfs: residue.allDbfs, measurable: false, uncertaintyDb: Infinity }
    : residue;
}

/** What lies so far around a frequency, as complex values at a low rate; a sine of amplitude 1 has half of that. */
function around(x: Samples, rate: number, hz: number, reachHz: number) {
  const factor = Math.max(1, Math.floor(rate / (4 * reachHz)));
  const rateHz = rate / factor;
  const taps = kaiserLowpass(rate, reachHz, rateHz - reachHz, STOPPED_DB);
  return { rateHz, ...new FirDecimator(taps, factor, (2 * Math.PI * hz) / rate).push(x) };
}
