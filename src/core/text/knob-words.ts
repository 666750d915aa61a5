/** A knob turns so far from its middle to either end, turns. */
export const KNOB_REACH = 5 / 12;
const HALF_HOURS = 24;

/**
 * Where a knob points, as one reads a clock: "at 12 o'clock" is its middle.
 * @param turns from its middle, clockwise positive
 */
export function knobWords(turns: number): string {
  const halves = Math.round(turns * HALF_HOURS);
  if (halves === 0) return "at 12 o'clock, its middle";
  const hour = (((Math.floor(halves / 2) % 12) + 12) % 12 || 12) as number;
  return halves % 2 === 0 ? `at ${hour} o'clock` : `at half past ${hour}`;
}
