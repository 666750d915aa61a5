/**
 * What bias does to a recording, typical of a cassette of type I at 4.76 cm/s: level of tones 20 dB down and the third
 * harmonic of 315 Hz at 250 nWb/m, against bias in dB re the recommended one. Workshop measurements; any tape's own data
 * are better.
 */
export const BIAS_TABLE = {
  biasDb: [-6, -4, -2, 0, 2, 4],
  sensitivityDb: [
    { frequencyHz: 315, db: [-3.6, -1.6, -0.5, 0, 0.1, -0.5] },
    { frequencyHz: 3150, db: [-1.0, 0.3, 0.6, 0, -1.1, -2.7] },
    { frequencyHz: 10_000, db: [1.0, 2.8, 1.9, 0, -2.9, -6.5] },
    { frequencyHz: 15_000, db: [1.9, 3.6, 2.4, 0, -3.7, -8.0] },
  ],
  thirdPercent: [6.5, 3.5, 1.7, 0.9, 0.7, 0.9],
} as const;

/** By how much more bias a type of tape wants than type I, dB. */
export const TYPE_BIAS_DB = { I: 0, II: 3.5, III: 1, IV: 7, "open reel": 0 } as const;

/**
 * The frequency at cassette speed at which tape answers to bias as it does at a frequency and speed: the over-bias that
 * open-reel tapes want, 3 to 5 dB at 19.05 cm/s and 1.5 to 3 dB at 38.1 cm/s, in terms of the table.
 */
export function asAtCassetteSpeed(frequencyHz: number, speedCmPerS: number): number {
  return speedCmPerS < 6 ? frequencyHz : 1.5 * frequencyHz * (19.05 / speedCmPerS) ** 0.8;
}
