import type { Machine } from "@/core/records/machine";
import { functionsOf } from "@/core/stations/functions";
import {
  TRIAL_PHASES,
  type FunctionId,
  type FunctionTrial,
  type TrialPhase,
} from "@/core/workshop/function-trial";
import type { Part, PartState } from "@/core/workshop/part";
import { nextEntry } from "@/core/workshop/strip-down";
import type { StripEntry, StripKind } from "@/core/workshop/strip-entry";

const BEGAN = Date.parse("2026-11-12T09:10:00.000Z");
const minutes = (n: number) => new Date(BEGAN + n * 60_000).toISOString();

/** The portable's motor and drive, as it was taken apart; "up" is the way out of an assembly. */
const CAME_OFF: ReadonlyArray<[StripKind | "up", string]> = [
  ["assembly", "back cover"],
  ["screw", "M3x12 cross pan x4, corners"],
  ["screw", "M2.6x6 cross, under the battery door, next time it is glued: warm it"],
  ["wire", "red and black to the battery box, next time the black one breaks at its joint"],
  ["assembly", "motor and drive"],
  ["screw", "M2.6x8 slotted x2, motor bracket"],
  ["slotted position", "motor bracket, mark at a scribed line on the chassis"],
  ["belt", "main belt, motor to flywheel"],
  ["clip", "3 mm, flywheel shaft"],
  ["washer", "0.25 mm x2, under the flywheel, stays with the flywheel"],
  ["ball", "2 mm, thrust bearing"],
  ["spring", "idler, hooked in the second hole"],
  ["up", ""],
];

const WINDS: Partial<Record<FunctionId, Record<TrialPhase, number>>> = {
  wind: { "as found": 118.6, "as left": 84.2 },
  rewind: { "as found": 86.3, "as left": 82.7 },
};

/** The functions of a machine as they were tried: one is slow to wind, and its headphone socket crackles. */
export function demoTrials(machine: Machine): FunctionTrial[] {
  return TRIAL_PHASES.flatMap((phase, p) =>
    functionsOf(machine).map((of, i): FunctionTrial => {
      const crackles = phase === "as found" && of === "headphones";
      return {
        id: `demo-trial-${p}-${String(i).padStart(2, "0")}`,
        at: minutes(5800 + 400 * p + 2 * i),
        of,
        phase,
        works: !crackles,
        seconds: WINDS[of]?.[phase] ?? null,
        note: crackles ? "right side crackles while the plug is turned" : "",
      };
    }),
  );
}

/** The strip-down log of a job, and the parts that the jobs of the demo workshop need. */
export function demoWorkshop(): { log: StripEntry[]; parts: Part[] } {
  const log: StripEntry[] = [];
  CAME_OFF.forEach(([kind, line], i) => {
    const at = minutes(2 * i);
    if (kind === "up") {
      const drive = log.findLast((one) => one.kind === "assembly")!;
      Object.assign(drive, { apartAt: at, updatedAt: at });
      return;
    }
    const id = `demo-strip-${String(i + 1).padStart(2, "0")}`;
    log.push({ ...nextEntry(log, kind, { id, jobId: "demo-job-0398", at }), line });
  });
  // back in its place, up to where the belt is waited for
  const fitted = ["spring", "ball"];
  for (const entry of log.filter(({ kind }) => fitted.includes(kind)))
    Object.assign(entry, { fittedAt: minutes(90), updatedAt: minutes(90) });
  const belt = log.find(({ kind }) => kind === "belt")!;
  Object.assign(belt, { trouble: { what: "broken", at: minutes(60) }, updatedAt: minutes(60) });

  const part = (
    id: string,
    jobId: string,
    fields: Pick<Part, "name" | "station" | "from"> & Partial<Part>,
    ...steps: Array<[minute: number, state: PartState, expected?: string]>
  ): Part => ({
    id: `demo-part-${id}`,
    jobId,
    count: 1,
    entryId: null,
    ...fields,
    steps: steps.map(([minute, state, expected = null]) => ({ at: minutes(minute), state, expected })),
    updatedAt: minutes(steps[steps.length - 1][0]),
  });
  return {
    log,
    parts: [
      part(
        "belt",
        "demo-job-0398",
        { name: "belt 71 mm", station: "service", from: "the belt stock list", entryId: belt.id },
        [60, "wanted"],
        [80, "ordered", "2026-11-30"],
      ),
      part(
        "cells",
        "demo-job-0398",
        { name: "battery contact spring", station: "sheet", from: "spare-parts box" },
        [61, "wanted"],
        [95, "fits"],
      ),
      part(
        "roller",
        "demo-job-0415",
        { name: "pinch roller, reverse side", station: "service", from: "a rubber works" },
        [13_500, "wanted"],
        [13_600, "away", "2026-12-08"],
      ),
      part(
        "tyre",
        "demo-job-0415",
        { name: "idler tyre", station: "service", from: "", count: 2 },
        [13_500, "wanted"],
        [13_520, "ordered", "2026-11-24"],
      ),
    ],
  };
}
