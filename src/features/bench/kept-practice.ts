import { z } from "zod";
import { readDraft, saveDraft } from "@/storage/drafts";

const perTrimmer = z.union([z.array(z.number()), z.number().transform((one) => [one])]);
const keptSchema = z.object({
  conditionId: z.string(),
  seed: z.number(),
  slotTurns: perTrimmer,
  loggedTurns: perTrimmer,
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
  slotTurns: [0, 0],
  loggedTurns: [0, 0],
});
