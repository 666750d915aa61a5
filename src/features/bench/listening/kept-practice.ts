import * as z from "@/core/text/zod";
import { blankIdOf } from "@/core/practice/practice-tape";
import { sequenceSchema, type Sequence } from "@/core/signals/sequence";
import { ALL_OFF, type DeckStatus } from "@/core/simulator/deck-status";
import { PRACTICE_SLOTS } from "@/core/simulator/practice-slots";
import { database } from "@/storage/database";
import { readDraft, saveDraft } from "@/storage/drafts";
import type { GoesOn } from "@/workers/listener-api";

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

/** So often it is kept how far a recording is. */
const KEEP_EVERY_SECONDS = 1;

const recordingOf = (deck: DeckStatus, sequence: Sequence | null): KeptPractice["records"] => {
  const { key, tapeId, side, positionSeconds, recordingSeconds, warmSeconds, monitor } = deck;
  if (key !== "record" && key !== "record-reverse") return undefined;
  return {
    key,
    blankId: blankIdOf(tapeId),
    sequence,
    side,
    positionSeconds,
    recordingSeconds,
    warmSeconds,
    monitor,
  };
};

/** The same with how far its recording is; null where that needs not be kept yet. */
export function withRecording(
  kept: KeptPractice,
  deck: DeckStatus,
  sends: Sequence | null,
): KeptPractice | null {
  const records = recordingOf(deck, sends);
  const sinceKept = (deck.recordingSeconds ?? 0) - (kept.records?.recordingSeconds ?? -Infinity);
  if (records ? sinceKept >= 0 && sinceKept < KEEP_EVERY_SECONDS : !kept.records) return null;
  return { ...kept, records };
}

/** The recording that a practice machine was left at. */
export async function recordingLeft({ records }: KeptPractice): Promise<GoesOn | null> {
  if (!records) return null;
  const { blankId, ...left } = records;
  return { ...left, blank: (blankId && (await database.blanks.get(blankId))) || null };
}
