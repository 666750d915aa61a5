import Dexie, { type EntityTable } from "dexie";
import type { Adjustment } from "@/core/records/adjustment";
import { blankNamed, type BlankTape } from "@/core/records/blank-tape";
import type { Job } from "@/core/records/job";
import type { Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import type { PartRun, Watch } from "@/core/records/runs";
import { partOfWaiting } from "@/core/records/part-of-waiting";
import type { Part } from "@/core/workshop/part";
import type { Spare } from "@/core/workshop/spare";
import type { StripEntry } from "@/core/workshop/strip-entry";
import type { Picture } from "@/core/workshop/picture";
import type { Sequence } from "@/core/signals/sequence";
import type { Calibration } from "@/core/records/input-calibration";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { LAST_CHANGED, noteChanges } from "./last-changed";

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

/** The sound that was heard when a reading was logged, as a 24-bit WAV file. */
export interface Recording {
  id: string;
  jobId: string;
  at: string;
  seconds: number;
  bytes: number;
  /** What was logged. */
  what: string;
  sound: Blob;
}

/** A picture with its image, a JPEG of a sensible size. */
export interface KeptPicture extends Picture {
  image: Blob;
}

/** One second of a practice tape that was recorded on. */
export interface TapeSecond {
  /** Tape, side and second. */
  id: string;
  tapeId: string;
  side: 0 | 1;
  second: number;
  left: Float32Array;
  right: Float32Array;
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
  settings!: EntityTable<{ id: string; value: unknown }, "id">;
  calibrations!: EntityTable<Calibration, "deviceId">;
  recordings!: EntityTable<Recording, "id">;
  sequences!: EntityTable<Sequence, "id">;
  blanks!: EntityTable<BlankTape, "id">;
  tapeSeconds!: EntityTable<TapeSecond, "id">;
  runs!: EntityTable<PartRun, "id">;
  watches!: EntityTable<Watch, "id">;
  neededParts!: EntityTable<Part, "id">;
  stripDown!: EntityTable<StripEntry, "id">;
  pictures!: EntityTable<KeptPicture, "id">;
  spares!: EntityTable<Spare, "id">;

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
    this.version(2).stores({
      settings: "id",
      calibrations: "deviceId",
      recordings: "id, jobId, at",
      sequences: "id, name",
      tapeSeconds: "id, tapeId",
    });
    // rotating parts and head tracks came with the part finder
    this.version(3)
      .stores({ runs: "id, jobId", watches: "id, jobId" })
      .upgrade((transaction) =>
        transaction
          .table<Machine>("machines")
          .toCollection()
          .modify((machine) => {
            machine.parts ??= [];
            machine.tracks ??= null;
          }),
      );
    // jobs named their blank tapes before there was a library of them
    this.version(4)
      .stores({ blanks: "id, name" })
      .upgrade(async (transaction) => {
        const blanks = transaction.table<BlankTape>("blanks");
        for (const job of await transaction.table<Job>("jobs").toArray())
          for (const { id, name } of job.blankTapes ?? [])
            if (!(await blanks.get(id))) await blanks.add(blankNamed(id, name));
      });
    // a job waited for one thing before it had parts
    this.version(5)
      .stores({ neededParts: "id, jobId", stripDown: "id, jobId", pictures: "id, jobId" })
      .upgrade(async (transaction) => {
        const jobs = transaction.table<Job>("jobs");
        for (const job of await jobs.toArray()) {
          const part = partOfWaiting(job);
          if (!part) continue;
          await transaction.table<Part>("neededParts").add(part);
          await jobs.update(job.id, { waiting: null });
        }
      });
    this.version(6).stores({ spares: "id, name, count" });
    this.use(noteChanges((at) => this.flags.put({ id: LAST_CHANGED, value: at })));
  }
}

export const database = new UnzelDatabase();
