/** The least power that has a level of its own here: what is nought reads −200 dB. */
const LEAST = 1e-20;

/** Level of a power, dB. */
export const powerDb = (power: number): number => 10 * Math.log10(Math.max(power, LEAST));

/** Level of an amplitude, dB; silence reads −200 here too. */
export const amplitudeDb = (amplitude: number): number =>
  20 * Math.log10(Math.max(amplitude, Math.sqrt(LEAST)));
