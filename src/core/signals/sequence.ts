import * as z from "@/core/text/zod";
import { MOST_PASSES } from "@/core/programme/sync-mark";
import { hertzText } from "@/core/text/number-text";

/**
 * A test sequence: what is played, exported and looked for in a recording. Levels of tones are the sine's peak in
 * dBFS; noise has the RMS of a sine of that level.
 */
const frequencyHz = z.number().min(5).max(40_000);
const levelDb = z.number().min(-120).max(0);
const seconds = z.number().positive("must be longer than nothing").max(7200);
const base = {
  name: z.string().max(80).optional(),
  channels: z.enum(["both", "left", "right"]).default("both"),
};

export const segmentSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("sine"), ...base, frequencyHz, levelDb, seconds }),
  z.object({ kind: z.literal("two-tone"), ...base, frequencyHz, secondHz: frequencyHz, levelDb, seconds }),
  z.object({
    kind: z.literal("steps"),
    ...base,
    frequenciesHz: z.array(frequencyHz).min(1).max(100),
    levelDb,
    /** Of each step. */
    seconds,
  }),
  z.object({
    kind: z.literal("staircase"),
    ...base,
    frequencyHz,
    levelDb,
    toLevelDb: levelDb,
    stepDb: z.number().min(0.1).max(60),
    /** Of each step. */
    seconds,
  }),
  z.object({ kind: z.literal("sweep"), ...base, frequencyHz, toFrequencyHz: frequencyHz, levelDb, seconds }),
  z.object({ kind: z.literal("pink"), ...base, levelDb, seconds }),
  z.object({ kind: z.literal("white"), ...base, levelDb, seconds }),
  z.object({ kind: z.literal("silence"), ...base, seconds }),
]);
export type Segment = z.infer<typeof segmentSchema>;
export type SegmentKind = Segment["kind"];

export const MOST_SEGMENTS = 64;
export const LONGEST_SECONDS = 7200;

export const sequenceSchema = z
  .object({
    format: z.literal("unzel-sequence"),
    version: z.literal(1),
    id: z.string().min(1).max(80),
    name: z.string().trim().min(1, "Give it a name.").max(200),
    description: z.string().max(2000).default(""),
    /** Silence before anything else, to start the recorder and speak an announcement. */
    leaderSeconds: z.number().min(0).max(60).default(0),
    /** A synchronisation mark in front of each segment, by which Unzel finds it in a recording. */
    marked: z.boolean().default(false),
    markLevelDb: levelDb.default(-12),
    /** Silence after each segment. */
    gapSeconds: z.number().min(0).max(60).default(0),
    /** So often the segments are gone through, each time with its number in the marks. */
    passes: z
      .number()
      .int("must be a whole number")
      .min(1)
      .max(MOST_PASSES, `may be up to ${MOST_PASSES}: the marks count no farther`)
      .optional(),
    /** Silence between two passes, to turn something. */
    passGapSeconds: z.number().min(0).max(60).default(8),
    /** Each segment swells and fades so long, so that it does not click; 0 for none. */
    fadeSeconds: z.number().min(0).max(1).default(0.01),
    segments: z
      .array(segmentSchema)
      .min(1, "A sequence needs at least one segment.")
      .max(MOST_SEGMENTS, `A sequence holds up to ${MOST_SEGMENTS} segments.`),
  })
  .refine(
    ({ segments, passes = 1 }) =>
      passes * segments.reduce((sum, s) => sum + segmentSeconds(s), 0) <= LONGEST_SECONDS,
    { message: `A sequence may be up to ${LONGEST_SECONDS / 3600} hours long.`, path: ["segments"] },
  )
  .refine(({ passes = 1, marked }) => passes === 1 || marked, {
    message: "several passes need marks, which tell them apart",
    path: ["passes"],
  });
export type Sequence = z.infer<typeof sequenceSchema>;

export function staircaseLevels({
  levelDb: from,
  toLevelDb: to,
  stepDb,
}: {
  levelDb: number;
  toLevelDb: number;
  stepDb: number;
}): number[] {
  const count = Math.floor(Math.abs(to - from) / stepDb + 1e-9) + 1;
  return Array.from({ length: count }, (_, i) => from + Math.sign(to - from) * i * stepDb);
}

/** Length of one segment, all its steps together. */
export function segmentSeconds(segment: Segment): number {
  if (segment.kind === "steps") return segment.seconds * segment.frequenciesHz.length;
  if (segment.kind === "staircase") return segment.seconds * staircaseLevels(segment).length;
  return segment.seconds;
}

/** "1 kHz, −10 dBFS, 20 s" */
export function segmentName(segment: Segment): string {
  const hertz = (hz: number) => hertzText(hz, 5);
  const level = (db: number) => `${db < 0 ? "−" : ""}${Math.abs(db)} dBFS`;
  const side = segment.channels === "both" ? "" : `, ${segment.channels} only`;
  const what = () => {
    switch (segment.kind) {
      case "sine":
        return `${hertz(segment.frequencyHz)}, ${level(segment.levelDb)}`;
      case "two-tone":
        return `${hertz(segment.frequencyHz)} and ${hertz(segment.secondHz)}, ${level(segment.levelDb)}`;
      case "steps":
        return `${segment.frequenciesHz.length} tones, ${hertz(segment.frequenciesHz[0])} to ${hertz(segment.frequenciesHz.at(-1)!)}, ${level(segment.levelDb)}`;
      case "staircase":
        return `${hertz(segment.frequencyHz)}, ${level(segment.levelDb)} to ${level(segment.toLevelDb)} in steps of ${segment.stepDb} dB`;
      case "sweep":
        return `sweep ${hertz(segment.frequencyHz)} to ${hertz(segment.toFrequencyHz)}, ${level(segment.levelDb)}`;
      case "pink":
        return `pink noise, ${level(segment.levelDb)}`;
      case "white":
        return `white noise, ${level(segment.levelDb)}`;
      case "silence":
        return "silence";
    }
  };
  return `${what()}${side}, ${Number(segmentSeconds(segment).toFixed(2))} s`;
}
