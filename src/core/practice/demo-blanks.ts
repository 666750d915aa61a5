import { blankTapeSchema, type BlankTape } from "@/core/records/blank-tape";

const blank = (fields: Omit<Partial<BlankTape>, "overBias"> & { overBias?: unknown }): BlankTape =>
  blankTapeSchema.parse({ format: "unzel-blank-tape", version: 1, ...fields });

/** The tapes that the demo workshop records on. */
export const DEMO_BLANKS: readonly BlankTape[] = [
  blank({
    id: "demo-blank-plain",
    name: "SSA plain cassette",
    type: "I",
    overBias: [{ speedCmPerS: 4.76, db: 3 }],
    recommendedLevelDb: 2,
    treble: "even",
    condition: { shedding: false, backCoated: false, age: "new" },
    notes: "The archive's everyday cassette for access copies.",
  }),
  blank({
    id: "demo-blank-bright",
    name: "SSA chrome cassette",
    type: "II",
    overBias: [{ speedCmPerS: 4.76, db: 3 }],
    recommendedLevelDb: 1,
    treble: "bright",
    condition: { shedding: false, backCoated: false, age: "old stock" },
  }),
  blank({
    id: "demo-blank-reel",
    name: "SSA long-play reel",
    type: "open reel",
    thicknessMicrometres: 35,
    overBias: [
      { speedCmPerS: 19.05, db: 4 },
      { speedCmPerS: 38.1, db: 2.5 },
    ],
    recommendedLevelDb: 3,
    treble: "even",
    condition: { shedding: false, backCoated: true, age: "new" },
  }),
];
