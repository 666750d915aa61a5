import { besselI0 } from "@/core/dsp/kaiser-lowpass";
import { sampled } from "@/core/dsp/sampled";

/** So many samples such a filter delays by. */
export const HALF_TAPS = 255;
const BETA = 6;

/** A symmetric filter with a wanted gain by frequency sampling: the gain as a sum of cosines, windowed. */
export function tapsFor(gain: (hz: number) => number, sampleRateHz: number): Float64Array {
  const points = 1024;
  const wanted = sampled(points + 1, (k) =>
    gain(Math.max(1, Math.min(0.46, k / (2 * points)) * sampleRateHz)),
  );
  const taps = new Float64Array(2 * HALF_TAPS + 1);
  for (let n = 0; n <= HALF_TAPS; n++) {
    let sum = wanted[0] / 2 + (wanted[points] / 2) * Math.cos(Math.PI * n);
    // cos(πkn/points) for one k after the other, by turning on
    const [stepRe, stepIm] = [Math.cos((Math.PI * n) / points), Math.sin((Math.PI * n) / points)];
    let [re, im] = [1, 0];
    for (let k = 1; k < points; k++) {
      const before = re;
      re = re * stepRe - im * stepIm;
      im = before * stepIm + im * stepRe;
      sum += wanted[k] * re;
    }
    const window = besselI0(BETA * Math.sqrt(1 - (n / (HALF_TAPS + 1)) ** 2)) / besselI0(BETA);
    taps[HALF_TAPS + n] = taps[HALF_TAPS - n] = (sum / points) * window;
  }
  return taps;
}
