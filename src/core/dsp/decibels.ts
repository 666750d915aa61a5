/** The least power that has a level of its own here: what is nought reads −200 dB. */
const LEAST = 1e-20;

/** Level of a power, dB. */
export const powerDb = (power: number): number => 10 * Math.log10(Math.max(power, LEAST));

/** Level of an amplitude, dB. */
export const amplitudeDb = (amplitude: number): number => powerDb(amplitude * amplitude);

/** Power of a level. */
export const powerOf = (db: number): number => 10 ** (db / 10);
