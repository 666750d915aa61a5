/** What a tape is made of and biased like (IEC 60094-7 for cassettes). */
export const TAPE_TYPES = ["I", "II", "III", "IV", "open reel"] as const;
export type TapeType = (typeof TAPE_TYPES)[number];

/** How much more bias current a type takes than type I, dB; null where types cannot be compared. */
export const BIAS_OVER_TYPE_I_DB: Record<TapeType, number | null> = {
  I: 0,
  II: 3.5,
  III: 1,
  IV: 7,
  "open reel": null,
};
