/**
 * How fast a sound card's clock is, from the frequency error that a true frequency seemed to have: a fast clock takes
 * more samples of each cycle and reads low.
 * @param measured what the uncalibrated clock made of the tone, percent
 * @param referencePpm ± at 95 % of the frequency itself
 */
export function clockFrom(
  measured: { errorPercent: number; uncertaintyPercent: number },
  referencePpm: number,
): { ppm: number; uncertaintyPpm: number } {
  return {
    ppm: (1 / (1 + measured.errorPercent / 100) - 1) * 1e6,
    uncertaintyPpm: Math.hypot(1e4 * measured.uncertaintyPercent, referencePpm),
  };
}

/** Level in dBu of a full-scale sine, when a sine of a known voltage (RMS) reads so many dBFS RMS. */
export function fullScaleDbu(volts: number, rmsDbfs: number): number {
  const dbu = 20 * Math.log10(volts / Math.sqrt(0.6));
  return dbu - (rmsDbfs + 10 * Math.log10(2));
}
