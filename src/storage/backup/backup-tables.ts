import type { Dexie, Table } from "dexie";
import * as z from "@/core/text/zod";
import {
  knownAdjustmentSchema,
  knownJobSchema,
  knownMachineSchema,
  knownPartSchema,
  knownReadingSchema,
} from "@/core/alignment/known-records";
import { blankTapeSchema } from "@/core/records/blank-tape";
import { calibrationSchema } from "@/core/records/input-calibration";
import { partRunSchema, watchSchema } from "@/core/records/runs";
import { referenceTapeSchema } from "@/core/reference/reference-tape";
import { pictureSchema } from "@/core/workshop/picture";
import { spareSchema } from "@/core/workshop/spare";
import { stripEntrySchema } from "@/core/workshop/strip-entry";
import { sequenceSchema } from "@/core/signals/sequence";
import type { UnzelDatabase } from "../database";

/** What happens to a record of the backup under whose id another stands here. */
export type Meeting =
  /** What was logged is never changed: the backup is refused. */
  | "refuse"
  /** The one that was changed later stays. */
  | "later"
  /** What is here stays. */
  | "mine";

interface BackedUp {
  /** As it is said to whoever restores. */
  name: string;
  schema: z.ZodType;
  meeting: Meeting;
  /** Under which property its key is. */
  key: "id" | "deviceId";
}

/** The tables that the storage has. */
export type TableName = {
  [Name in keyof UnzelDatabase]: UnzelDatabase[Name] extends Table ? Name : never;
}[Exclude<keyof UnzelDatabase, keyof Dexie>];

const text = z.string();
const anything = z.unknown();

/** Every table of the storage; one that is forgotten here fails to compile. */
export const BACKED_UP = {
  jobs: { name: "jobs", schema: knownJobSchema, meeting: "later", key: "id" },
  machines: { name: "machines", schema: knownMachineSchema, meeting: "mine", key: "id" },
  tapes: { name: "reference tapes", schema: referenceTapeSchema, meeting: "mine", key: "id" },
  blanks: { name: "blank tapes", schema: blankTapeSchema, meeting: "mine", key: "id" },
  readings: { name: "readings", schema: knownReadingSchema, meeting: "refuse", key: "id" },
  adjustments: { name: "turns and work", schema: knownAdjustmentSchema, meeting: "refuse", key: "id" },
  runs: { name: "runs", schema: partRunSchema, meeting: "refuse", key: "id" },
  watches: { name: "watched runs", schema: watchSchema, meeting: "refuse", key: "id" },
  neededParts: { name: "parts to get", schema: knownPartSchema, meeting: "later", key: "id" },
  spares: { name: "spare parts", schema: spareSchema, meeting: "later", key: "id" },
  stripDown: { name: "lines of strip-down logs", schema: stripEntrySchema, meeting: "later", key: "id" },
  pictures: {
    name: "pictures",
    schema: pictureSchema.extend({ image: z.instanceof(Blob) }),
    meeting: "mine",
    key: "id",
  },
  sequences: { name: "test sequences", schema: sequenceSchema, meeting: "mine", key: "id" },
  calibrations: { name: "calibrations", schema: calibrationSchema, meeting: "mine", key: "deviceId" },
  settings: { name: "settings", schema: z.object({ id: text, value: anything }), meeting: "mine", key: "id" },
  flags: { name: "notes of Unzel", schema: z.object({ id: text, value: text }), meeting: "mine", key: "id" },
  drafts: {
    name: "things half typed",
    schema: z.object({ id: text, value: anything, savedAt: text }),
    meeting: "mine",
    key: "id",
  },
  recordings: {
    name: "sounds",
    schema: z.object({
      id: text,
      jobId: text,
      at: z.iso.datetime(),
      seconds: z.number(),
      bytes: z.number(),
      what: text,
      sound: z.instanceof(Blob),
    }),
    meeting: "mine",
    key: "id",
  },
  tapeSeconds: {
    name: "seconds of practice tapes",
    schema: z.object({
      id: text,
      tapeId: text,
      side: z.union([z.literal(0), z.literal(1)]),
      second: z.number(),
      left: z.instanceof(Float32Array),
      right: z.instanceof(Float32Array),
    }),
    meeting: "mine",
    key: "id",
  },
} as const satisfies Record<TableName, BackedUp>;

export const TABLE_NAMES = Object.keys(BACKED_UP) as TableName[];
