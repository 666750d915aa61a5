/** Every unit that a reading can have. */
export const UNITS = ["%", "°", "dB", "dBFS", "′", "s", "kHz", "/min"] as const;
export type Unit = (typeof UNITS)[number];

/** As they are said aloud. */
export const UNIT_WORDS: Record<Unit, string> = {
  "%": "percent",
  "°": "degrees",
  dB: "decibels",
  dBFS: "decibels re full scale",
  "′": "arc-minutes",
  s: "seconds",
  kHz: "kilohertz",
  "/min": "a minute",
};

/** "0.3 %", "15°": degrees and arc-minutes stand close. */
export const unitAfter = (unit: Unit): string => (unit === "°" || unit === "′" ? unit : `\u2009${unit}`);
