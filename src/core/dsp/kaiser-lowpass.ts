/**
 * Linear-phase low-pass by the Kaiser window method (Kaiser 1974): flat up to `passHz`, down by
 * `attenuationDb` from `stopHz` on. Returns an odd number of taps with unity gain at 0 Hz; the delay is
 * `(taps.length − 1) / 2` samples.
 * @throws RangeError unless 0 < passHz < stopHz and passHz is below half the sample rate.
 */
export function kaiserLowpass(
  sampleRateHz: number,
  passHz: number,
  stopHz: number,
  attenuationDb = 120,
): Float64Array {
  if (!(passHz > 0 && passHz < stopHz && passHz < sampleRateHz / 2))
    throw new RangeError(
      `low-pass needs 0 < pass < stop and pass below half the rate; got pass ${passHz} Hz, stop ${stopHz} Hz at ${sampleRateHz} Hz`,
    );
  const beta = attenuationDb > 50 ? 0.1102 * (attenuationDb - 8.7) : 0;
  const transition = (2 * Math.PI * (stopHz - passHz)) / sampleRateHz;
  const half = Math.ceil((attenuationDb - 7.95) / (2.285 * transition) / 2);
  const cutoff = (passHz + stopHz) / sampleRateHz; // as a fraction of half the rate
  const taps = new Float64Array(2 * half + 1);
  let sum = 0;
  for (let i = -half; i <= half; i++) {
    const x = Math.PI * cutoff * i;
    const ideal = i === 0 ? 1 : Math.sin(x) / x;
    const window = besselI0(beta * Math.sqrt(1 - (i / (half + 1)) ** 2)) / besselI0(beta);
    taps[i + half] = ideal * window;
    sum += taps[i + half];
  }
  return taps.map((tap) => tap / sum);
}

/** Modified Bessel function of the first kind, order 0, by its power series. */
export function besselI0(x: number): number {
  let term = 1;
  let sum = 1;
  for (let k = 1; term > sum * 1e-17; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}
