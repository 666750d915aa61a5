import type { ReferenceTape } from "@/core/alignment/records";

/** Reference tapes by layout only; their certificates are the owner's to fill in. */
export const BUILT_IN_TAPES: readonly ReferenceTape[] = [
  {
    format: "unzel-reference-tape",
    version: 1,
    id: "tone-3150-cassette",
    name: "Speed tone 3150 Hz, cassette (no certificate)",
    speedCmPerS: 4.76,
    frequencyUncertaintyPercent: 0.3,
    bands: [{ kind: "tone", role: "speed", frequencyHz: 3150, levelDb: 0, seconds: 600 }],
  },
  {
    format: "unzel-reference-tape",
    version: 1,
    id: "tone-3000-cassette",
    name: "Speed tone 3000 Hz, cassette (no certificate)",
    speedCmPerS: 4.76,
    frequencyUncertaintyPercent: 0.3,
    bands: [{ kind: "tone", role: "speed", frequencyHz: 3000, levelDb: 0, seconds: 600 }],
  },
  {
    format: "unzel-reference-tape",
    version: 1,
    id: "tone-3150-quarter-inch",
    name: "Speed tone 3150 Hz, quarter-inch 19.05 cm/s (no certificate)",
    speedCmPerS: 19.05,
    frequencyUncertaintyPercent: 0.3,
    bands: [{ kind: "tone", role: "speed", frequencyHz: 3150, levelDb: 0, seconds: 300 }],
  },
];
