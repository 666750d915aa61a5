import type { Band, ReferenceTape } from "./reference-tape";

const tape = { format: "unzel-reference-tape", version: 1 } as const;
const tone = { kind: "tone", role: "speed", levelDb: 0 } as const;

const REEL_HZ = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000, 10000, 12500, 16000];

/** Level, speed, a ladder for azimuth, response and a silence, as full alignment tapes have them. */
function fullAlignment(responseHz: number[]): Band[] {
  return [
    { ...tone, role: "level", frequencyHz: 315, seconds: 20, correctionDb: { left: 0.1, right: -0.1 } },
    { ...tone, frequencyHz: 3150, seconds: 40, frequencyErrorPercent: 0.02 },
    ...[1000, 3150, 8000, 10000].map((frequencyHz) => ({
      ...tone,
      role: "azimuth",
      frequencyHz,
      levelDb: -10,
      seconds: 12,
    })),
    ...[315, ...responseHz].map((frequencyHz) => ({
      ...tone,
      role: "response",
      frequencyHz,
      levelDb: -20,
      seconds: 8,
      correctionDb: frequencyHz > 7000 ? { left: -0.4, right: -0.6 } : { left: 0, right: 0.1 },
      correctionUncertaintyDb: 0.3,
    })),
    { kind: "silence", role: "noise", frequencyHz: 0, levelDb: -100, seconds: 15 },
  ];
}

/** The numbered tapes of the demo workshop. */
export const DEMO_TAPES: readonly ReferenceTape[] = [
  {
    ...tape,
    id: "ssa-01",
    name: "SSA-01 speed and flutter, cassette",
    speedCmPerS: 4.76,
    frequencyUncertaintyPercent: 0.03,
    bands: [{ ...tone, frequencyHz: 3150, seconds: 900 }],
  },
  {
    ...tape,
    id: "ssa-03",
    name: "SSA-03 speed and flutter, 19.05 cm/s",
    speedCmPerS: 19.05,
    frequencyUncertaintyPercent: 0.02,
    bands: [{ ...tone, frequencyHz: 3150, seconds: 300, frequencyErrorPercent: 0.01 }],
  },
  {
    ...tape,
    id: "ssa-04",
    name: "SSA-04 speed and flutter, 38.1 cm/s",
    speedCmPerS: 38.1,
    frequencyUncertaintyPercent: 0.02,
    bands: [{ ...tone, frequencyHz: 3150, seconds: 300 }],
  },
  {
    ...tape,
    id: "ssa-07",
    name: "SSA-07 home-made, 3000 Hz, cassette",
    speedCmPerS: 4.76,
    frequencyUncertaintyPercent: 0.05,
    making: {
      by: "the archive",
      machine: "Ellesby C-3H, job 0388",
      howChecked: "against SSA-01, a week before",
      speedUncertaintyPercent: 1,
    },
    plays: 41,
    condition: "worn",
    bands: [{ ...tone, frequencyHz: 3000, seconds: 600 }],
  },
  {
    ...tape,
    id: "ssa-10",
    name: "SSA-10 full alignment, cassette",
    speedCmPerS: 4.76,
    equalisation: "3180/120",
    fluxivityNwbPerM: 250,
    fluxivityMethod: "din",
    trackWidthMm: 1.5,
    frequencyUncertaintyPercent: 0.05,
    plays: 12,
    condition: "good",
    notes: "With its certificate in the box. Rewind by playing, not by winding.",
    bands: fullAlignment([40, 63, 125, 250, 500, 1000, 2000, 4000, 6300, 8000, 10000, 12500]),
  },
  {
    ...tape,
    id: "ssa-11",
    name: "SSA-11 full alignment, 19.05 cm/s",
    speedCmPerS: 19.05,
    equalisation: "0/70",
    fluxivityNwbPerM: 320,
    fluxivityMethod: "din",
    trackWidthMm: 6.3,
    frequencyUncertaintyPercent: 0.03,
    condition: "good",
    bands: fullAlignment(REEL_HZ),
  },
  {
    ...tape,
    id: "ssa-12",
    name: "SSA-12 full alignment, 38.1 cm/s",
    speedCmPerS: 38.1,
    equalisation: "0/35",
    fluxivityNwbPerM: 320,
    fluxivityMethod: "din",
    trackWidthMm: 6.3,
    frequencyUncertaintyPercent: 0.03,
    condition: "good",
    bands: fullAlignment(REEL_HZ),
  },
  {
    ...tape,
    id: "ssa-14",
    name: "SSA-14 azimuth, cassette",
    speedCmPerS: 4.76,
    equalisation: "3180/120",
    frequencyUncertaintyPercent: 0.1,
    plays: 30,
    condition: "good",
    notes: "A short ladder, then 10 kHz for as long as a screwdriver needs.",
    bands: [
      ...[315, 1000, 3150, 6300].map((frequencyHz) => ({
        ...tone,
        role: "azimuth",
        frequencyHz,
        levelDb: -10,
        seconds: 8,
      })),
      { ...tone, role: "azimuth", frequencyHz: 10000, levelDb: -10, seconds: 600 },
    ],
  },
  {
    ...tape,
    id: "ssa-16",
    name: "SSA-16 sweep and noise, cassette",
    speedCmPerS: 4.76,
    equalisation: "3180/120",
    fluxivityNwbPerM: 250,
    fluxivityMethod: "din",
    frequencyUncertaintyPercent: 0.1,
    plays: 4,
    condition: "good",
    notes: "The whole response in half a minute, twice.",
    bands: [
      { ...tone, role: "level", frequencyHz: 315, seconds: 10 },
      {
        kind: "sweep",
        role: "response",
        frequencyHz: 40,
        toFrequencyHz: 12500,
        levelDb: -20,
        seconds: 30,
        correctionUncertaintyDb: 0.3,
      },
      { kind: "noise", role: "response", frequencyHz: 0, levelDb: -20, seconds: 30 },
    ],
  },
];
