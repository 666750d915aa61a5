import type { AmplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";

/** A place of the rate spectrum: peak deviation in percent. */
export interface RatePoint {
  rateHz: number;
  percent: number;
}

export const POINTS_FROM_HZ = 0.05;
const TO_HZ = 200;
const MOST_POINTS = 800;

/** A spectrum of the deviation (fraction) for drawing: the highest line of each of some hundred logarithmic steps. */
export function ratePoints({ amplitude, binHz }: AmplitudeSpectrum): RatePoint[] {
  const points: RatePoint[] = [];
  const ratio = (TO_HZ / POINTS_FROM_HZ) ** (1 / MOST_POINTS);
  let next = POINTS_FROM_HZ;
  for (let k = Math.max(1, Math.ceil(POINTS_FROM_HZ / binHz)); k < amplitude.length && k * binHz <= TO_HZ;) {
    let best = k;
    for (; k < amplitude.length && k * binHz < next * ratio; k++)
      if (amplitude[k] > amplitude[best]) best = k;
    if (k > best) points.push({ rateHz: best * binHz, percent: 100 * amplitude[best] });
    next *= ratio;
  }
  return points;
}
