import type { ReferenceTape } from "@/core/reference/reference-tape";

const tape = { format: "unzel-reference-tape", version: 1 } as const;
const tone = { kind: "tone", role: "speed", levelDb: 0 } as const;

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
    id: "ssa-07",
    name: "SSA-07 home-made, 3000 Hz, cassette",
    speedCmPerS: 4.76,
    frequencyUncertaintyPercent: 1,
    bands: [{ ...tone, frequencyHz: 3000, seconds: 600 }],
  },
];
