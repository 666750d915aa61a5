/** Twelfths of an octave from 25 Hz to 20 kHz, for drawing curves. */
export const FREQUENCIES: readonly number[] = Array.from(
  { length: Math.floor(12 * Math.log2(20_000 / 25)) + 1 },
  (_, i) => 25 * 2 ** (i / 12),
);
