export interface TimedTape {
  speedCmPerS: number;
  errorPercent: number;
  /** ± at 95 %: of the length and of the hand on the watch. */
  uncertaintyPercent: number;
}

/** Two presses by hand, each off by up to so much. */
const HAND_SECONDS = 0.3;

/**
 * Speed from a measured length of tape between two marks and the time it takes to pass.
 * @throws RangeError when a figure is not positive
 */
export function timedTape(
  metres: number,
  seconds: number,
  nominalCmPerS: number,
  { lengthErrorMm = 5, timeErrorSeconds = HAND_SECONDS } = {},
): TimedTape {
  if (!(metres > 0 && seconds > 0 && nominalCmPerS > 0))
    throw new RangeError("length, time and nominal speed have to be more than nought");
  const speedCmPerS = (100 * metres) / seconds;
  return {
    speedCmPerS,
    errorPercent: 100 * (speedCmPerS / nominalCmPerS - 1),
    uncertaintyPercent: 100 * Math.hypot(lengthErrorMm / 1000 / metres, timeErrorSeconds / seconds),
  };
}
