import Dexie, { type EntityTable } from "dexie";
import type { Adjustment, Job, Machine, Reading } from "@/core/alignment/records";
import type { ReferenceTape } from "@/core/reference/reference-tape";

/** Something half typed, kept until it is saved or thrown away. */
export interface Draft {
  id: string;
  value: unknown;
  savedAt: string;
}

interface Flag {
  id: string;
  value: string;
}

/** Everything Unzel knows, in this browser. Indexes only; the shapes are those of the schemas. */
export class UnzelDatabase extends Dexie {
  jobs!: EntityTable<Job, "id">;
  machines!: EntityTable<Machine, "id">;
  tapes!: EntityTable<ReferenceTape, "id">;
  readings!: EntityTable<Reading, "id">;
  adjustments!: EntityTable<Adjustment, "id">;
  drafts!: EntityTable<Draft, "id">;
  flags!: EntityTable<Flag, "id">;

  constructor(name = "unzel") {
    super(name);
    this.version(1).stores({
      jobs: "id, number, machineId, updatedAt",
      machines: "id, name",
      tapes: "id, name",
      readings: "id, jobId, [jobId+at]",
      adjustments: "id, jobId, [jobId+at]",
      drafts: "id",
      flags: "id",
    });
  }
}

export const database = new UnzelDatabase();
