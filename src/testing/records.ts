import type { Adjustment } from "@/core/records/adjustment";
import type { Job } from "@/core/records/job";
import type { Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { Part, PartState } from "@/core/workshop/part";
import type { BundleContent } from "@/core/formats/job-bundle";

/** Records for tests, each whole and valid; give what matters to the case. */
export const aMachine = (fields: Partial<Machine> = {}): Machine => ({
  id: "m1",
  name: "Tarnvik T-2",
  description: "",
  speedsCmPerS: [19.05],
  toleranceClass: "studio",
  limits: {},
  flutterMeter: "peak",
  adjusters: [
    { id: "speed", name: "SPEED 19", where: "", sets: "speed", kind: "turn" },
    { id: "belt", name: "Replaced the belt", where: "", sets: "flutter", kind: "work" },
  ],
  parts: [],
  tracks: null,
  channels: 2,
  operatingLevel: null,
  ...fields,
});

export const aTape = (fields: Partial<ReferenceTape> = {}): ReferenceTape => ({
  format: "unzel-reference-tape",
  version: 1,
  id: "t1",
  name: "SSA-03",
  speedCmPerS: 19.05,
  frequencyUncertaintyPercent: 0.02,
  bands: [{ kind: "tone", role: "speed", frequencyHz: 3150, levelDb: 0, seconds: 300 }],
  ...fields,
});

export const aJob = (fields: Partial<Job> = {}): Job => ({
  id: "j1",
  number: "0412",
  machineId: "m1",
  tapeId: "t1",
  speedCmPerS: 19.05,
  complaint: "Runs slow.",
  notes: "",
  done: {},
  waiting: null,
  finishedAt: null,
  createdAt: "2026-11-20T10:00:00.000Z",
  updatedAt: "2026-11-20T10:00:00.000Z",
  ...fields,
});

let next = 0;
const id = (kind: string) => `${kind}${String(++next).padStart(5, "0")}`;
const minute = (n: number) => new Date(Date.UTC(2026, 10, 20, 11, n)).toISOString();

export const aReading = ({
  minutes = 0,
  ...fields
}: Partial<Reading> & { minutes?: number } = {}): Reading => ({
  id: id("r"),
  jobId: "j1",
  station: "speed",
  quantity: "speedError",
  value: -1.62,
  unit: "%",
  uncertainty: 0.03,
  ownUncertainty: 0.01,
  method: "mean",
  context: { channel: "both", tapeId: "t1", nominalHz: 3150, speedCmPerS: 19.05, seconds: 6 },
  phase: "as found",
  at: minute(minutes),
  source: { kind: "practice", name: "Tarnvik T-2" },
  engine: "unzel 0.1",
  evidenceId: null,
  supersedes: null,
  ...fields,
});

export const anAdjustment = ({
  minutes = 0,
  ...fields
}: Partial<Adjustment> & { minutes?: number } = {}): Adjustment => ({
  id: id("a"),
  jobId: "j1",
  station: "speed",
  adjusterId: "speed",
  turns: 0.125,
  at: minute(minutes),
  note: "",
  supersedes: null,
  ...fields,
});

export const aPart = ({
  state = "ordered",
  expected = null,
  ...fields
}: Partial<Part> & { state?: PartState; expected?: string | null } = {}): Part => ({
  id: id("p"),
  jobId: "j1",
  name: "belt 71 mm",
  count: 1,
  station: "service",
  from: "",
  entryId: null,
  steps: [{ at: minute(0), state, expected }],
  updatedAt: minute(0),
  ...fields,
});

export function aBundle(): BundleContent {
  return {
    jobs: [aJob()],
    machines: [aMachine()],
    tapes: [aTape()],
    blanks: [],
    readings: [aReading({ id: "r1" })],
    adjustments: [anAdjustment({ id: "a1", minutes: 1 })],
    runs: [],
    watches: [],
    neededParts: [],
    stripDown: [],
  };
}
