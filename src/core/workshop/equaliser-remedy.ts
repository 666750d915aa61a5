import { nearestPreferred, parallelFor } from "./preferred-values";

/** A resistor that brings a time constant where it belongs, beside the one that is there. */
export interface EqualiserRemedy {
  kind: "parallel" | "series";
  partOhms: number;
  /** The nearest value that there is to buy. */
  nearestOhms: number;
  /** Time constant with that value, µs. */
  resultMicroseconds: number;
}

const NOTHING_TO_GAIN = 0.03;

/**
 * What to solder to the resistor that sets a time constant, τ = R·C: in parallel when it is too long, in series when it
 * is too short. Null when it is right within 3 %.
 * @throws RangeError for values that are not positive
 */
export function equaliserRemedy(
  presentOhms: number,
  presentMicroseconds: number,
  wantedMicroseconds: number,
): EqualiserRemedy | null {
  if (!(presentOhms > 0 && presentMicroseconds > 0 && wantedMicroseconds > 0))
    throw new RangeError("a resistor and its time constants are greater than nought");
  const ratio = wantedMicroseconds / presentMicroseconds;
  if (Math.abs(ratio - 1) < NOTHING_TO_GAIN) return null;
  const wantedOhms = presentOhms * ratio;
  const kind = ratio < 1 ? "parallel" : "series";
  const partOhms = kind === "parallel" ? parallelFor(presentOhms, wantedOhms) : wantedOhms - presentOhms;
  const nearestOhms = nearestPreferred(partOhms);
  const resultOhms =
    kind === "parallel" ? 1 / (1 / presentOhms + 1 / nearestOhms) : presentOhms + nearestOhms;
  return {
    kind,
    partOhms,
    nearestOhms,
    resultMicroseconds: (presentMicroseconds * resultOhms) / presentOhms,
  };
}
