import * as z from "@/core/text/zod";

const level = z.number();

/** What of a recording can go by itself. */
export const GOES = ["level", "treble", "erase"] as const;

const wentSchema = z.object({
  what: z.enum(GOES),
  /** Since the recording began. */
  atSeconds: z.number().min(0),
  channels: z.array(z.string().max(20)).max(2),
  /** How far it went from where it stood at the beginning. */
  byDb: z.number(),
});
/** Something of a recording that is not as it began, from a second on. */
export type Went = z.infer<typeof wentSchema>;

/** A recording that is watched for the second at which it goes. Levels are dBFS of the two tones and of the old programme. */
export const recordingRunSchema = z.object({
  /** Since the recording began, as far as it was heard. */
  seconds: z.number().min(0),
  /** Stretches in which nobody listened. */
  missed: z.array(z.object({ fromSeconds: z.number(), toSeconds: z.number() })).max(200),
  /** By tone, then by channel; null while the beginning is still being heard. */
  began: z.array(z.array(level)).nullable(),
  now: z.array(z.array(level)),
  /** Of both tones as they went in, where that was heard. */
  sent: z.array(z.array(level)).max(2).optional(),
  /** In the order in which they went. */
  went: z.array(wentSchema).max(GOES.length),
  /** What is left of the tones still stands out of the noise: it goes on being recorded, badly. */
  isLeft: z.boolean(),
  /** Nothing was heard of it for so long that it has come to its end. */
  ended: z.boolean(),
  /** Whether it came off the tape; null before that can be told. */
  offTape: z.boolean().nullable(),
  /** How far each tone stood from its beginning, the channel that is off more, in even steps; null where nobody listened. */
  track: z.object({
    stepSeconds: z.number().positive(),
    dbByTone: z.array(z.array(level.nullable()).max(4000)).max(3),
  }),
});
export type RecordingRun = z.infer<typeof recordingRunSchema>;
