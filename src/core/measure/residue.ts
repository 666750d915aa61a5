import { powerDb } from "@/core/dsp/decibels";
import { fftWorkspace } from "@/core/dsp/fft-workspace";
import { hannWindow } from "@/core/dsp/hann-window";

/** What is left of a tone that was erased. */
export interface Residue {
  /** dBFS of a sine as strong; at most that where noise hides it. */
  levelDbfs: number;
  /** ± at 95 %. */
  uncertaintyDb: number;
  measurable: boolean;
}

/** Half width of the filter: the flutter of the machine that made it stays inside. */
const HALF_WIDTH = 0.012;
const LEAST_HALF_WIDTH_HZ = 4;
/** On both sides of it the noise around is heard, between these shares of the frequency. */
const NOISE_FROM = 0.02;
const NOISE_TO = 0.07;
const SHORTEST_SECONDS = 1;
/** Of a spectrum of a Hann window each bin counts as so much of an independent one. */
const INDEPENDENT_SHARE = 0.65;
/** It stands out of the noise by so many times what chance makes of that. */
const STANDS_OUT = 3;

/**
 * What is left of a tone in a stretch of what should be silence, by a narrow filter: the power around its frequency less
 * that of the noise on both sides.
 * @returns null for less than a second
 */
export function residueOf(x: Float32Array | Float64Array, sampleRateHz: number, hz: number): Residue | null {
  if (x.length < SHORTEST_SECONDS * sampleRateHz) return null;
  const size = 2 ** Math.ceil(Math.log2(x.length));
  const { fft, input, output } = fftWorkspace(size);
  input.fill(0);
  // a Hann window with a mean square of 1, so that the power of noise is kept
  const window = hannWindow(x.length);
  for (let i = 0; i < x.length; i++) input[i] = x[i] * Math.sqrt(2 / 3) * window[i];
  fft.realTransform(output, input);
  const binHz = sampleRateHz / size;
  const half = Math.max(LEAST_HALF_WIDTH_HZ, HALF_WIDTH * hz);
  /** Sum of a sine's squared amplitude over its bins. */
  const between = (from: number, to: number) => {
    let [sum, bins] = [0, 0];
    for (let k = Math.max(1, Math.ceil(from / binHz)); k <= Math.min(size / 2 - 1, to / binHz); k++) {
      sum += output[2 * k] ** 2 + output[2 * k + 1] ** 2;
      bins++;
    }
    return { power: (4 * sum) / size / x.length, bins };
  };
  const inside = between(hz - half, hz + half);
  const [low, high] = [
    between(hz * (1 - NOISE_TO), hz - Math.max(2 * half, NOISE_FROM * hz)),
    between(hz + Math.max(2 * half, NOISE_FROM * hz), hz * (1 + NOISE_TO)),
  ];
  const noise = (inside.bins * (low.power + high.power)) / Math.max(1, low.bins + high.bins);
  const resolved = (size / x.length) * (1 / INDEPENDENT_SHARE);
  const chance = noise / Math.sqrt(Math.max(1, inside.bins / resolved));
  const power = inside.power - noise;
  const measurable = power > STANDS_OUT * chance;
  const levelDbfs = powerDb(measurable ? power : Math.max(power, 0) + 2 * chance);
  // beside a tone its noise adds up with it: of the tone's own power twice the root of both
  const spread = Math.sqrt(chance ** 2 + (2 * power * noise) / Math.max(1, inside.bins / resolved));
  return { levelDbfs, uncertaintyDb: measurable ? (2 * 4.343 * spread) / power : Infinity, measurable };
}
