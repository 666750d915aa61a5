import { z } from "zod";
import { machinePartsSchema } from "@/core/workshop/machine-part";
import { QUANTITIES, UNITS, type Quantity } from "./quantities";
import { TOLERANCE_CLASSES, type ToleranceClass } from "@/core/standards/tolerance-classes";

/**
 * Everything that is stored, exported and imported. Readings and adjustments are appended, never edited: a
 * correction is a new record that names the one it supersedes.
 */
const id = z.string().min(1).max(80);
const time = z.iso.datetime();
const text = z.string().max(20_000);
const name = z.string().trim().min(1, "Give it a name.").max(200);
const percent = z.number().min(0).max(100);

export const STATION_IDS = [
  "intake",
  "service",
  "path",
  "clean",
  "speed",
  "flutter",
  "azimuth",
  "level",
  "response",
  "sheet",
] as const;
export const stationIdSchema = z.enum(STATION_IDS);
export type StationId = z.infer<typeof stationIdSchema>;

export const SIDES = ["A", "B"] as const;
export const CHANNELS = ["left", "right"] as const;
/** What an adjuster can be for; the names are those of the stations. */
export const ADJUSTED = ["speed", "flutter", "azimuth", "level", "response"] as const;

/** Another head than the playback head. */
export const HEADS = ["record"] as const;

export const adjusterSchema = z.object({
  id,
  name,
  /** Where it sits and what to turn it with. */
  where: text.default(""),
  sets: z.enum(ADJUSTED),
  /** A screw or trimmer is turned; work is done once (a belt changed, a capstan cleaned). */
  kind: z.enum(["turn", "work"]),
  /** The channel it acts on; both when left out. */
  channel: z.enum(CHANNELS).optional(),
  /** The direction it acts on; both when left out. */
  side: z.enum(SIDES).optional(),
  /** The head whose azimuth it sets; the playback head when left out. */
  head: z.enum(HEADS).optional(),
  /** Tape speeds it acts at; every one when left out. */
  speedsCmPerS: z.array(z.number().min(1).max(100)).optional(),
});
export type Adjuster = z.infer<typeof adjusterSchema>;

export const FLUTTER_METERS = ["peak", "twoSigma", "rms", "average"] as const;
export const flutterMeterSchema = z.enum(FLUTTER_METERS);
export type FlutterMeter = z.infer<typeof flutterMeterSchema>;

export const machineSchema = z.object({
  id,
  name,
  description: text.default(""),
  speedsCmPerS: z.array(z.number().min(1).max(100)).min(1, "Give at least one speed."),
  toleranceClass: z.enum(Object.keys(TOLERANCE_CLASSES) as [ToleranceClass, ...ToleranceClass[]]),
  /** Limits of this very machine, where they differ from its class. */
  limits: z
    .object({
      speedErrorPercent: percent.optional(),
      flutterPercent: percent.optional(),
      azimuthDegrees: z.number().positive().max(360).optional(),
      balanceDb: z.number().positive().max(20).optional(),
      responseDb: z.number().positive().max(20).optional(),
    })
    .default({}),
  /** The weighted meter that the machine's flutter limit is written in. */
  flutterMeter: flutterMeterSchema.default("peak"),
  adjusters: z.array(adjusterSchema).default([]),
  /** Rotating parts, for naming where flutter comes from. */
  parts: machinePartsSchema.default([]),
  channels: z.union([z.literal(1), z.literal(2)]).default(2),
  /** Output level that the machine is to have where its tape has this fluxivity. */
  operatingLevel: z
    .object({
      fluxivityNwbPerM: z.number().positive().max(2000),
      method: z.enum(["ansi", "din"]),
      outputDbu: z.number().min(-60).max(40),
    })
    .nullable()
    .default(null),
  /** Two capstans hold the tape between them: azimuth wanders less. */
  dualCapstan: z.boolean().optional(),
  /** Inductance of the playback head, for what a capacitor across it does. */
  headInductanceMh: z.number().positive().max(10_000).optional(),
  /** Of the pair of a stereo head. */
  tracks: z
    .object({ widthMm: z.number().positive().max(30), spacingMm: z.number().min(0).max(30) })
    .nullable()
    .default(null),
});
export type Machine = z.infer<typeof machineSchema>;

export const EDGE_CURLS = ["none", "slight", "curls"] as const;
/** A guide or head of the tape path as it was gauged in one direction. */
export const pathEntrySchema = z.object({
  id,
  at: time,
  where: z.string().trim().min(1, "Say which guide or head it is.").max(80),
  side: z.enum(SIDES),
  heightMm: z.number().min(-50).max(100).nullable(),
  edgeCurl: z.enum(EDGE_CURLS),
  sealed: z.boolean(),
});
export type PathEntry = z.infer<typeof pathEntrySchema>;

export const jobSchema = z.object({
  id,
  /** The number on the tag. */
  number: z.string().trim().min(1, "Give the job a number.").max(40),
  machineId: id,
  tapeId: id,
  /** Tape speed that is worked at, with `tapeId` for it. */
  speedCmPerS: z.number().min(1).max(100),
  /** The other speeds of the job, each with its reference tape. */
  otherSpeeds: z
    .array(z.object({ speedCmPerS: z.number().min(1).max(100), tapeId: id }))
    .max(10)
    .optional(),
  complaint: text,
  notes: text.default(""),
  /** Speed is set right on the side that plays, instead of sharing the error between the sides. */
  oneSideOnly: z.boolean().optional(),
  /** Stations that this job goes without. */
  leftOut: z.array(stationIdSchema).optional(),
  /** What was gauged at the guides and heads, oldest first. */
  pathLog: z.array(pathEntrySchema).max(200).optional(),
  /** Checklist lines that are done, by station. */
  done: z.partialRecord(stationIdSchema, z.array(z.string().max(200))).default({}),
  /** Work after this station waits for something to arrive. */
  waiting: z
    .object({ for: z.string().min(1).max(200), until: z.iso.date(), after: stationIdSchema })
    .nullable()
    .default(null),
  finishedAt: time.nullable().default(null),
  createdAt: time,
  updatedAt: time,
});
export type Job = z.infer<typeof jobSchema>;

export const PHASES = ["as found", "working", "as left"] as const;
export type Phase = (typeof PHASES)[number];

const quantitySchema = z.enum(Object.keys(QUANTITIES) as [Quantity, ...Quantity[]]);

export const POSITIONS = ["start", "middle", "end"] as const;
export const SUPPLIES = ["mains", "battery"] as const;
export const PITCHES = ["slowest", "fastest"] as const;
/** In what circumstances a reading was taken. */
export interface Circumstances {
  side?: (typeof SIDES)[number];
  position?: (typeof POSITIONS)[number];
  supply?: (typeof SUPPLIES)[number];
  /** An end of the pitch control; at its centre click, or without one, when left out. */
  pitch?: (typeof PITCHES)[number];
  /** The record head, heard live off the tape; the playback head when left out. */
  head?: (typeof HEADS)[number];
}

export const readingSchema = z.object({
  id,
  jobId: id,
  station: stationIdSchema,
  quantity: quantitySchema,
  value: z.number(),
  unit: z.enum(UNITS),
  /** ± at 95 %, with the reference tape's and the clock's shares counted in. */
  uncertainty: z.number().min(0),
  /** The share of it that the measurement itself has: noise and wander. */
  ownUncertainty: z.number().min(0),
  method: z.string().max(200),
  context: z.object({
    channel: z.string().max(20),
    tapeId: id,
    nominalHz: z.number(),
    speedCmPerS: z.number(),
    seconds: z.number().min(0),
    /** Side or direction that played, where on the reel, and what fed the machine; left out when not said. */
    side: z.enum(SIDES).optional(),
    position: z.enum(POSITIONS).optional(),
    supply: z.enum(SUPPLIES).optional(),
    pitch: z.enum(PITCHES).optional(),
    head: z.enum(HEADS).optional(),
  }),
  phase: z.enum(PHASES),
  at: time,
  source: z.object({
    kind: z.enum(["practice", "file", "sound card", "by hand"]),
    name: z.string().max(300),
  }),
  engine: z.string().max(40),
  /** The recording of what was heard, where one was kept. */
  evidenceId: id.nullable().default(null),
  supersedes: id.nullable().default(null),
});
export type Reading = z.infer<typeof readingSchema>;

export const adjustmentSchema = z.object({
  id,
  jobId: id,
  station: stationIdSchema,
  adjusterId: id,
  /** Clockwise positive; null for work, or when nobody counted; 0 in a correction that takes it back. */
  turns: z.number().min(-100).max(100).nullable(),
  /** It would not go any farther that way. */
  atStop: z.boolean().optional(),
  at: time,
  note: text.default(""),
  supersedes: id.nullable().default(null),
});
export type Adjustment = z.infer<typeof adjustmentSchema>;

/** A job with its machine and everything that was logged in it. */
export interface JobRecords {
  job: Job;
  machine: Machine;
  readings: Reading[];
  adjustments: Adjustment[];
}

/** The records that still count: those that no later one supersedes, oldest first. */
export function inForce<T extends { id: string; at: string; supersedes: string | null }>(records: T[]): T[] {
  const superseded = new Set(records.map((record) => record.supersedes));
  return records
    .filter((record) => !superseded.has(record.id))
    .sort((a, b) => a.at.localeCompare(b.at) || a.id.localeCompare(b.id));
}
