/** A seam or flat passes within this share of a turn. */
const PULSE_SHARE = 0.06;

/** Speed variation of an eccentric part, as a fraction, after so many turns. */
export function sine(percent: number, turns: number): number {
  return percent === 0 ? 0 : (percent / 100) * Math.sin(2 * Math.PI * turns);
}

/** A raised-cosine bump of the given peak, once a turn. */
export function pulse(percent: number, turns: number, share = PULSE_SHARE): number {
  const passed = turns - Math.floor(turns);
  if (percent === 0 || passed >= share) return 0;
  return (percent / 200) * (1 - Math.cos((2 * Math.PI * passed) / share));
}
