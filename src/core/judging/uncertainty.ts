/** An uncalibrated sound-card clock, ± at 95 %, percent (50 ppm). */
export const CLOCK_PERCENT = 0.005;
/** The meters' own accuracy, as a share of the reading, and the residual of a perfect tone, percent. */
const FLUTTER_SHARE = 0.02;
const FLUTTER_RESIDUAL_PERCENT = 0.0005;

/** Independent shares, each ± at 95 %, combined as root sum of squares. */
export const combined = (...shares: number[]): number => Math.hypot(...shares);

/** Uncertainty of a speed error, percent: the reading's own, the tape's and the clock's. */
export const speedUncertainty = (
  ownPercent: number,
  tapePercent: number,
  clockPercent = CLOCK_PERCENT,
): number => combined(ownPercent, tapePercent, clockPercent);

/**
 * Uncertainty of a flutter figure, percent.
 * @param ownPercent what noise, stray tones, bridged places and the length of the sound may have done to it
 */
export const flutterUncertainty = (percent: number, ownPercent: number): number =>
  combined(FLUTTER_SHARE * percent, FLUTTER_RESIDUAL_PERCENT, ownPercent);
