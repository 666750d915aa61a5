/** What a tape is made of and biased like (IEC 60094-7 for cassettes). */
export const TAPE_TYPES = ["I", "II", "III", "IV", "open reel"] as const;
export type TapeType = (typeof TAPE_TYPES)[number];
