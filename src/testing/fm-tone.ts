import { sampled } from "@/core/dsp/sampled";
import { sineWave } from "./sine-wave";

/** One sinusoidal deviation: rate in Hz, peak as a fraction, phase in radians. */
export interface Modulation {
  rateHz: number;
  peak: number;
  phase?: number;
}

/**
 * A tone with known deviations in closed form: the phase is the integral of the frequency, so nothing is
 * accumulated. For tests; it shares no code with the practice machine.
 */
export function fmTone(
  seconds: number,
  sampleRateHz: number,
  carrierHz: number,
  modulations: Modulation[] = [],
  amplitude = 0.5,
): Float64Array {
  const length = Math.round(seconds * sampleRateHz);
  if (modulations.length === 0)
    return sineWave(length, carrierHz / sampleRateHz).map((value) => amplitude * value);
  const swings = modulations.map(({ rateHz, peak, phase = 0.7 }) => ({
    depth: (carrierHz * peak) / rateHz,
    cosine: sineWave(length, rateHz / sampleRateHz, phase + Math.PI / 2),
  }));
  return sampled(length, (i) => {
    let phase = (2 * Math.PI * carrierHz * i) / sampleRateHz;
    for (const { depth, cosine } of swings) phase -= depth * cosine[i];
    return amplitude * Math.sin(phase);
  });
}

/** A tone whose frequency rises by `peak` for `pulseSeconds` at the start of each second. */
export function pulsedTone(
  seconds: number,
  sampleRateHz: number,
  carrierHz: number,
  peak: number,
  pulseSeconds: number,
) {
  const passed = (t: number) => Math.floor(t) * pulseSeconds + Math.min(t - Math.floor(t), pulseSeconds);
  return sampled(Math.round(seconds * sampleRateHz), (i) => {
    const t = i / sampleRateHz;
    return 0.5 * Math.sin(2 * Math.PI * carrierHz * (t + peak * passed(t)));
  });
}

/** Made once for all the tests that ask for it; what is shorter is the beginning of what is longer. */
const noises = new Map<number, Float64Array>();
const MOST_NOISES = 8;

/** White noise of the given RMS, repeatable. */
export function whiteNoise(length: number, rms: number, seed = 1): Float64Array {
  const kept = noises.get(seed);
  const unit = kept && kept.length >= length ? kept : unitNoise(length, seed);
  if (unit !== kept) {
    if (noises.size >= MOST_NOISES) noises.clear();
    noises.set(seed, unit);
  }
  return sampled(length, (i) => rms * unit[i]);
}

function unitNoise(length: number, seed: number): Float64Array {
  let state = seed;
  // state · 48271 modulo 2³¹ − 1: what is above bit 31 counts once more below
  const uniform = () => {
    const product = state * 48271;
    const high = Math.floor(product / 2147483648);
    const sum = product - high * 2147483648 + high;
    state = sum < 2147483647 ? sum : sum - 2147483647;
    return state / 2147483647;
  };
  return sampled(length, () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform()));
}

export const sumOf = (a: Float64Array, b: Float64Array): Float64Array => a.map((v, i) => v + b[i]);
