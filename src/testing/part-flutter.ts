import { SeededRandom } from "@/core/dsp/seeded-random";
import { sampled } from "@/core/dsp/sampled";

export const DEVIATION_RATE_HZ = 1600;

/** Deviation as a fraction at a time in seconds. */
type Deviation = (seconds: number) => number;

export const wave =
  (percent: number, rateHz: number, phase = 0.3): Deviation =>
  (t) =>
    (percent / 100) * Math.sin(2 * Math.PI * rateHz * t + phase);

/** A raised-cosine bump of the given height once a turn, over `share` of it, less its mean. */
export const bump =
  (percent: number, rateHz: number, share = 0.08): Deviation =>
  (t) => {
    const u = (t * rateHz + 0.1) % 1;
    return (percent / 100) * ((u < share ? 0.5 * (1 - Math.cos((2 * Math.PI * u) / share)) : 0) - share / 2);
  };

/** Line of a reel whose pack starts at `radiusMm` and grows (or, negative, shrinks) by the tape's thickness. */
export const reelWave =
  (percent: number, radiusMm: number, micrometres: number, mmPerS: number): Deviation =>
  (t) => {
    const k = (mmPerS * micrometres) / 1000 / Math.PI;
    const turns = (mmPerS / (Math.PI * k)) * (Math.sqrt(radiusMm * radiusMm + k * t) - radiusMm);
    return (percent / 100) * Math.sin(2 * Math.PI * turns);
  };

/** Sum of deviations, with noise of the given RMS that is stronger at slow rates. */
export function flutterOfParts(seconds: number, deviations: Deviation[], noise = 0, seed = 3) {
  const random = new SeededRandom(seed);
  let slow = 0;
  const deviation = sampled(Math.round(seconds * DEVIATION_RATE_HZ), (i) => {
    slow += -0.001 * slow + 0.045 * random.normal();
    const t = i / DEVIATION_RATE_HZ;
    return deviations.reduce((sum, d) => sum + d(t), noise * (random.normal() + slow));
  });
  return { deviation, rateHz: DEVIATION_RATE_HZ };
}

/** Share of the mean square that each deviation has in a sum, in percent. */
export function sharesOf(seconds: number, deviations: Deviation[]): number[] {
  const { deviation: all } = flutterOfParts(seconds, deviations);
  const square = (x: Float64Array) => x.reduce((sum, v) => sum + v * v, 0);
  return deviations.map((d) => (100 * square(flutterOfParts(seconds, [d]).deviation)) / square(all));
}
