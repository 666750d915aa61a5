/** Frequencies of the poles of the A curve, Hz (IEC 61672-1, annex E). */
const F1 = 20.598997;
const F2 = 107.65265;
const F3 = 737.86223;
const F4 = 12_194.217;

const aShape = (f: number): number =>
  (F4 ** 2 * f ** 4) /
  ((f * f + F1 ** 2) * Math.sqrt((f * f + F2 ** 2) * (f * f + F3 ** 2)) * (f * f + F4 ** 2));
const A_AT_1_KHZ = aShape(1000);

/** Amplitude gain of the A curve, 1 at 1 kHz (IEC 61672-1). */
export const aWeighting = (hz: number): number => aShape(hz) / A_AT_1_KHZ;

/**
 * Amplitude gain of the noise weighting of ITU-R BS.468-4, 1 at 1 kHz: the passive network of its figure 1 as a ratio of
 * polynomials of the frequency.
 */
export function itu468Weighting(hz: number): number {
  const f2 = hz * hz;
  const h1 =
    -4.737338981378384e-24 * f2 ** 3 + 2.043828333606125e-15 * f2 ** 2 - 1.363894795463638e-7 * f2 + 1;
  const h2 =
    1.306612257412824e-19 * f2 ** 2 * hz - 2.118150887518656e-11 * f2 * hz + 5.559488023498642e-4 * hz;
  return (8.128305161640993 * 1.246332637532143e-4 * hz) / Math.hypot(h1, h2);
}

/**
 * The quasi-peak detector of ITU-R BS.468-4 as two followers in a row, each rising and falling at its own rate, seconds:
 * fitted to the standard's tables of single and repeated bursts, which they meet within 0.12 dB.
 */
export const QUASI_PEAK_FOLLOWERS = [
  { riseSeconds: 0.00144, fallSeconds: 0.2892 },
  { riseSeconds: 0.1383, fallSeconds: 0.1595 },
] as const;

/** Single bursts of 5 kHz, ms, and what the meter shows of them re the same tone held, percent: least, nominal, most (BS.468-4, table 2). */
export const SINGLE_BURSTS = [
  [1, 13.5, 17, 21.4],
  [2, 22.4, 26.6, 31.6],
  [5, 34, 40, 46],
  [10, 41, 48, 55],
  [20, 44, 52, 60],
  [50, 50, 59, 68],
  [100, 58, 68, 78],
  [200, 68, 80, 92],
] as const;
/** Bursts of 5 ms, so many a second, likewise (BS.468-4, table 3). */
export const REPEATED_BURSTS = [
  [2, 43, 48, 53],
  [10, 72, 77, 82],
  [100, 94, 97, 100],
] as const;
