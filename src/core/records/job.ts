import * as z from "@/core/text/zod";
import { tapeCheckSchema } from "@/core/workshop/tape-condition";
import { beltChangeSchema } from "@/core/workshop/belt-change";
import { cleaningEntrySchema } from "@/core/workshop/cleaning";
import { functionTrialSchema } from "@/core/workshop/function-trial";
import { SYMPTOMS } from "@/core/workshop/symptoms";
import { MOST_ENTRIES, SIDES, id, station, text, time } from "./fields";

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

/** A tape of the library of blank tapes that a job is set for, with the name it had then. */
export const jobBlankSchema = z.object({
  id,
  name: z.string().trim().min(1, "Name the tape.").max(200),
  /** Somebody looked that it is this tape that is in the machine, though it behaves like one of another type. */
  seen: z.boolean().optional(),
  /** How the front of the machine stands for it. */
  front: z
    .object({
      at: time,
      /** Turns of each knob from its middle, by the id of its adjuster. */
      knobs: z.record(id, z.number().min(-20).max(20)),
      /** What else is set for it, in words. */
      words: text.default(""),
    })
    .optional(),
});
export type JobBlank = z.infer<typeof jobBlankSchema>;

/** Where the 0 of the machine is, found once in a job: its meter, or a voltmeter, showed 0 while the level tone came in. */
export const zeroSchema = z.object({
  at: time,
  /** Sequences are sent by so much below the full output of the sound card. */
  sendDb: z.number().min(-60).max(0),
  /** What a voltmeter showed at the machine's input, where that told it. */
  volts: z.number().positive("must be more than nothing").max(100).optional(),
  /** The level tone as the source monitor gave it then, each channel; null where it was not heard. */
  inputDbfs: z.array(z.number().min(-200).max(20)).min(1).max(2).nullable(),
});
export type Zero = z.infer<typeof zeroSchema>;

/** How bias is judged. */
export const BIAS_SCHOOLS = ["over-bias", "flatness", "third-harmonic", "makers-figure"] as const;
export type BiasSchool = (typeof BIAS_SCHOOLS)[number];

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
  /** What the complaint means, in plain words. */
  symptoms: z.array(z.enum(SYMPTOMS)).max(SYMPTOMS.length).optional(),
  /** What came with the machine, and a tape that was stuck in it. */
  cameWith: text.optional(),
  /** Who is told when it is done. It stays in this browser and in files that it exports. */
  contact: text.optional(),
  /** What the owner should know, in words for the first page of the sheet. */
  ownerWords: text.optional(),
  /** The day by which it should be looked at again. */
  nextCheck: z.iso.date().nullable().optional(),
  /** The day by which it is wanted. */
  wantedBy: z.iso.date().nullable().optional(),
  /** Tapes that were looked at before they were played. */
  tapeChecks: z.array(tapeCheckSchema).max(MOST_ENTRIES).optional(),
  /** Of the machine as it came in. */
  pictures: z.array(id).max(MOST_ENTRIES).optional(),
  /** Of the machine as it goes out again. */
  picturesAfter: z.array(id).max(MOST_ENTRIES).optional(),
  /** Speed is set right on the side that plays, instead of sharing the error between the sides. */
  oneSideOnly: z.boolean().optional(),
  /** Stations that this job goes without. */
  leftOut: z.array(station).optional(),
  /** The tapes that it is set to record on. */
  blankTapes: z.array(jobBlankSchema).max(MOST_ENTRIES).optional(),
  /** The school that bias is set by; flatness when left out. */
  biasSchool: z.enum(BIAS_SCHOOLS).optional(),
  zero: zeroSchema.optional(),
  /** What was gauged at the guides and heads, oldest first. */
  pathLog: z.array(pathEntrySchema).max(MOST_ENTRIES).optional(),
  /** What was found and done at its parts when it was cleaned, oldest first. */
  cleaning: z.array(cleaningEntrySchema).max(MOST_ENTRIES).optional(),
  /** Belts that were changed, oldest first. */
  belts: z.array(beltChangeSchema).max(MOST_ENTRIES).optional(),
  /** What was tried of the machine's functions, oldest first. */
  functionTrials: z.array(functionTrialSchema).max(MOST_ENTRIES).optional(),
  /** Checklist lines that are done, by station. */
  done: z.record(station, z.array(text)).default({}),
  /** As files of versions without parts have it: a part that a station waits for. It becomes one when it is read. */
  waiting: z
    .object({ for: z.string().min(1).max(200), until: z.iso.date(), after: station })
    .nullable()
    .default(null),
  finishedAt: time.nullable().default(null),
  createdAt: time,
  updatedAt: time,
});
export type Job = z.infer<typeof jobSchema>;
