import type { Band, ReferenceTape } from "./reference-tape";

const speed = (frequencyHz: number, seconds: number): Band => ({
  kind: "tone",
  role: "speed",
  frequencyHz,
  levelDb: 0,
  seconds,
});
const tones = (role: string, levelDb: number, seconds: number, frequenciesHz: number[]): Band[] =>
  frequenciesHz.map((frequencyHz) => ({ kind: "tone", role, frequencyHz, levelDb, seconds }));

const CASSETTE = {
  format: "unzel-reference-tape",
  version: 1,
  speedCmPerS: 4.76,
  equalisation: "3180/120",
  fluxivityNwbPerM: 250,
  fluxivityMethod: "din",
  trackWidthMm: 1.5,
  frequencyUncertaintyPercent: 0.3,
} as const;
const QUARTER_INCH = {
  format: "unzel-reference-tape",
  version: 1,
  speedCmPerS: 19.05,
  equalisation: "∞/70",
  fluxivityNwbPerM: 320,
  fluxivityMethod: "din",
  trackWidthMm: 6.3,
  frequencyUncertaintyPercent: 0.3,
} as const;

const CASSETTE_LADDER = tones("azimuth", -10, 15, [1000, 3150, 6300, 8000, 10000]);
const QUARTER_INCH_LADDER = tones("azimuth", -10, 15, [1000, 3150, 8000, 10000, 16000]);
const CASSETTE_RESPONSE = tones(
  "response",
  -20,
  8,
  [315, 40, 63, 125, 250, 500, 1000, 2000, 4000, 6300, 8000, 10000, 12500],
);
const QUARTER_INCH_RESPONSE = tones(
  "response",
  -20,
  8,
  [1000, 31.5, 40, 63, 125, 250, 500, 2000, 4000, 6300, 8000, 10000, 12500, 14000, 16000, 18000],
);

/** Reference tapes by layout only; their certificates are the owner's to fill in. */
export const BUILT_IN_TAPES: readonly ReferenceTape[] = [
  {
    ...CASSETTE,
    id: "tone-3150-cassette",
    name: "Speed tone 3150 Hz, cassette (no certificate)",
    bands: [speed(3150, 600)],
  },
  {
    ...CASSETTE,
    id: "tone-3000-cassette",
    name: "Speed tone 3000 Hz, cassette (no certificate)",
    bands: [speed(3000, 600)],
  },
  {
    ...QUARTER_INCH,
    id: "tone-3150-quarter-inch",
    name: "Speed tone 3150 Hz, quarter-inch 19.05 cm/s (no certificate)",
    bands: [speed(3150, 300)],
  },
  {
    ...CASSETTE,
    id: "azimuth-cassette",
    name: "Azimuth ladder, cassette (no certificate)",
    bands: CASSETTE_LADDER,
  },
  {
    ...QUARTER_INCH,
    id: "azimuth-quarter-inch",
    name: "Azimuth ladder, quarter-inch 19.05 cm/s (no certificate)",
    bands: QUARTER_INCH_LADDER,
  },
  {
    ...CASSETTE,
    id: "level-cassette",
    name: "Level 315 Hz, cassette (no certificate)",
    bands: tones("level", 0, 120, [315]),
  },
  {
    ...QUARTER_INCH,
    id: "level-quarter-inch",
    name: "Level 1 kHz, quarter-inch 19.05 cm/s (no certificate)",
    bands: tones("level", 0, 60, [1000]),
  },
  {
    ...CASSETTE,
    id: "full-cassette",
    name: "Full set, cassette 120 µs (no certificate)",
    bands: [
      ...tones("level", 0, 20, [315]),
      speed(3150, 60),
      ...CASSETTE_LADDER,
      ...CASSETTE_RESPONSE,
      { kind: "sweep", role: "response", frequencyHz: 40, toFrequencyHz: 12500, levelDb: -20, seconds: 30 },
      { kind: "noise", role: "response", frequencyHz: 0, levelDb: -20, seconds: 30 },
      { kind: "silence", role: "noise", frequencyHz: 0, levelDb: -100, seconds: 20 },
    ],
  },
  {
    ...QUARTER_INCH,
    id: "full-quarter-inch",
    name: "Full set, quarter-inch 19.05 cm/s (no certificate)",
    bands: [
      ...tones("level", 0, 20, [1000]),
      speed(3150, 60),
      ...QUARTER_INCH_LADDER,
      ...QUARTER_INCH_RESPONSE,
      { kind: "silence", role: "noise", frequencyHz: 0, levelDb: -100, seconds: 20 },
    ],
  },
];
