/** Marks of the verdicts as paths in a 12 by 12 box, since the shipped fonts do not have them. */
export const GLYPH_PATHS = {
  check: "M1 6.5 L4.5 10 L11 2",
  wave: "M1 7.5 C3 3.5 5 4 6 6 S9 8.5 11 4.5",
  question: "M2.5 4 C2.5 0.5 9.5 0.5 9.5 4 C9.5 6.5 6 6 6 8.5 M6 10.2 L6 11.6",
  cross: "M2 2 L10 10 M10 2 L2 10",
} as const;

export type Glyph = keyof typeof GLYPH_PATHS;
