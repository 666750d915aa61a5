import type { Machine } from "@/core/records/machine";
import { newMachine } from "@/core/records/new-machine";
import type { ReferenceTape } from "@/core/reference/reference-tape";

/** In the place of a machine that was deleted: its jobs open with what they have, and nothing can be turned on it. */
export const goneMachine = (id: string, speedCmPerS: number): Machine => ({
  ...newMachine(id),
  name: "Deleted machine",
  description: "This machine is not in this browser any more: import its file, or restore a backup.",
  speedsCmPerS: [speedCmPerS],
});

/** In the place of a reference tape that was deleted: so uncertain that nothing passes by it. */
export const goneTape = (id: string, speedCmPerS: number): ReferenceTape => ({
  format: "unzel-reference-tape",
  version: 1,
  id,
  name: "Deleted tape",
  speedCmPerS,
  frequencyUncertaintyPercent: 10,
  bands: [{ kind: "tone", role: "speed", frequencyHz: 3150, levelDb: 0, seconds: 60 }],
});
