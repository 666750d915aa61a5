export const MINUS = "−";
export const THIN_SPACE = "\u2009";

/** Fixed decimals with a true minus sign; a value that rounds to zero has no sign unless asked for. */
export function fixed(value: number, decimals: number, plus = false): string {
  const digits = Math.abs(value).toFixed(decimals);
  if (Number(digits) === 0) return digits;
  return `${value < 0 ? MINUS : plus ? "+" : ""}${digits}`;
}

/**
 * Decimals that an uncertainty leaves worth printing: its first digit, or its first two when the first is 1
 * or 2; from 1 to `most`.
 */
export function decimalsFor(uncertainty: number, most = 3): number {
  if (!(uncertainty > 0)) return most;
  const exponent = Math.floor(Math.log10(uncertainty * 1.0000001));
  const lead = uncertainty / 10 ** exponent;
  return Math.min(most, Math.max(1, (lead < 2.95 ? 1 : 0) - exponent));
}

/** "−1.62 ± 0.03 %" */
export function withUncertainty(
  value: number,
  uncertainty: number,
  unit: string,
  plus = false,
  most = 3,
): string {
  const decimals = decimalsFor(uncertainty, most);
  const shown = Math.max(uncertainty, 10 ** -decimals / 2);
  return `${fixed(value, decimals, plus)}${THIN_SPACE}±${THIN_SPACE}${shown.toFixed(decimals)}${THIN_SPACE}${unit}`;
}

/** A frequency as it is spoken: "315 Hz", "12.5 kHz". */
export const hertzText = (hz: number, digits = 3): string =>
  hz >= 1000 ? `${Number((hz / 1000).toPrecision(digits))} kHz` : `${Number(hz.toPrecision(digits))} Hz`;
