import * as z from "@/core/text/zod";
import { sequenceSchema } from "@/core/signals/sequence";
import { ALL_OFF } from "@/core/simulator/deck-status";
import { PRACTICE_SLOTS } from "@/core/simulator/practice-slots";
import { readDraft, saveDraft } from "@/storage/drafts";

const perTrimmer = z
  .union([z.array(z.number()), z.number().transform((one) => [one])])
  .transform((turns) => Array.from({ length: PRACTICE_SLOTS }, (_, i) => turns[i] ?? 0));
const keptSchema = z.object({
  conditionId: z.string(),
  seed: z.number(),
  slotTurns: perTrimmer,
  loggedTurns: perTrimmer,
  /** Work that was done to it. */
  done: z.array(z.string()).default([]),
  /** Its switches on the front. */
  switches: z
    .object({ reduction: z.boolean(), multiplex: z.boolean(), headroom: z.boolean() })
    .default(ALL_OFF),
  /** What it records, by tape and sequence, and how far it is; left out while it does not. */
  records: z
    .object({
      key: z.enum(["record", "record-reverse"]).default("record"),
      blankId: z.string().nullable(),
      sequence: sequenceSchema.nullable(),
      side: z.union([z.literal(0), z.literal(1)]),
      positionSeconds: z.number(),
      recordingSeconds: z.number(),
      warmSeconds: z.number(),
      monitor: z.enum(["source", "tape"]),
    })
    .optional(),
});
/** What is kept of a practice machine between visits: its trimmers stay where they were left. */
export type KeptPractice = z.infer<typeof keptSchema>;

const draftId = (jobId: string) => `practice-${jobId}`;

export async function keptPractice(jobId: string): Promise<KeptPractice | undefined> {
  return keptSchema.safeParse(await readDraft(draftId(jobId))).data;
}

export const keepPractice = (jobId: string, kept: KeptPractice): Promise<void> =>
  saveDraft(draftId(jobId), kept);

/** A machine that nobody has touched yet. */
export const freshPractice = (conditionId: string): KeptPractice => ({
  conditionId,
  seed: 1 + Math.floor(Math.random() * 1e6),
  slotTurns: Array.from({ length: PRACTICE_SLOTS }, () => 0),
  loggedTurns: Array.from({ length: PRACTICE_SLOTS }, () => 0),
  done: [],
  switches: ALL_OFF,
});
