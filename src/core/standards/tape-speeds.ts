/** Tape speeds in cm/s with the names they go by in inches per second (IEC 60094-1). */
export const TAPE_SPEEDS = [
  { cmPerS: 2.38, inchesPerS: "15/16" },
  { cmPerS: 4.76, inchesPerS: "1 7/8" },
  { cmPerS: 9.53, inchesPerS: "3 3/4" },
  { cmPerS: 19.05, inchesPerS: "7 1/2" },
  { cmPerS: 38.1, inchesPerS: "15" },
  { cmPerS: 76.2, inchesPerS: "30" },
] as const;
