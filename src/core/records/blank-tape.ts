import * as z from "@/core/text/zod";
import { TAPE_TYPES } from "@/core/standards/tape-types";
import { id, name, text } from "./fields";

export const TREBLES = ["soft", "even", "bright"] as const;

const cmPerS = z.number().min(1).max(100);

/** A tape to record on: what its maker says of it and what the workshop knows. */
export const blankTapeSchema = z.object({
  format: z.literal("unzel-blank-tape"),
  version: z.literal(1),
  id,
  name,
  /** Null where nobody wrote it down. */
  type: z.enum(TAPE_TYPES).nullable(),
  /** Of an open-reel tape, base and coating together. */
  thicknessMicrometres: z.number().min(5).max(80).optional(),
  /** By how much a high tone is to have dropped past its loudest point, for each tape speed. */
  overBias: z
    .array(
      z.object({
        speedCmPerS: cmPerS,
        frequencyHz: z.number().min(1000).max(20_000).default(10_000),
        db: z.number().min(0.1, "must be more than nothing").max(12),
      }),
    )
    .max(10)
    .default([]),
  /** How far above the machine's 0 it may be recorded, dB. */
  recommendedLevelDb: z.number().min(-20).max(20).optional(),
  /** Beside others of its type. */
  treble: z.enum(TREBLES).optional(),
  condition: z
    .object({
      shedding: z.boolean().default(false),
      backCoated: z.boolean().default(false),
      /** "1980s", "new". */
      age: z.string().max(80).default(""),
    })
    .default({ shedding: false, backCoated: false, age: "" }),
  notes: text.default(""),
});
export type BlankTape = z.infer<typeof blankTapeSchema>;

/** A blank tape of which only the name is known. */
export const blankNamed = (blankId: string, blankName: string): BlankTape =>
  blankTapeSchema.parse({
    format: "unzel-blank-tape",
    version: 1,
    id: blankId,
    name: blankName,
    type: null,
  });

/** The over-bias figure of a tape at a speed; null where it has none. */
export const overBiasAt = (blank: BlankTape | undefined, speedCmPerS: number) =>
  blank?.overBias.find((one) => Math.abs(one.speedCmPerS / speedCmPerS - 1) < 0.02) ?? null;

/** "type II", "open reel, 50 µm" */
export function typeWords({ type, thicknessMicrometres }: BlankTape): string {
  if (type === null) return "type not said";
  const thickness = thicknessMicrometres === undefined ? "" : `, ${thicknessMicrometres} µm`;
  return `${type === "open reel" ? type : `type ${type}`}${thickness}`;
}
