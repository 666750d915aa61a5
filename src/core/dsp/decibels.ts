/** The least power that has a level of its own here: what is nought reads −200 dB. */
const LEAST = 1e-20;

/** Level of a power, dB. */
export const powerDb = (power: number): number => 10 * Math.log10(Math.max(power, LEAST));

/** Level of an amplitude, dB; silence reads −200 here too. */
export const amplitudeDb = (amplitude: number): number =>
  20 * Math.log10(Math.max(amplitude, Math.sqrt(LEAST)));

/** The power that has a level. */
export const powerOf = (db: number): number => 10 ** (db / 10);

/** The amplitude that has a level; what a sound is multiplied by to be so much louder. */
export const amplitudeOf = (db: number): number => 10 ** (db / 20);
