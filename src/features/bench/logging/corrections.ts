import { inForce } from "@/core/records/job-records";
import type { Adjustment } from "@/core/records/adjustment";
import type { Phase, Reading } from "@/core/records/reading";
import { appendAdjustment, appendReadings, newId } from "@/storage/jobs";

/** Logs anew, under another phase, a reading and all that were taken in the same moment. */
export async function correctPhase(reading: Reading, all: Reading[], phase: Phase): Promise<void> {
  const together = inForce(all).filter((r) => r.station === reading.station && r.at === reading.at);
  await appendReadings(together.map((r) => ({ ...r, id: newId(), phase, supersedes: r.id })));
}

/** Says how far an adjuster was turned after all; 0 when it was not turned. */
export async function correctTurn(adjustment: Adjustment, turns: number): Promise<void> {
  await appendAdjustment({ ...adjustment, id: newId(), turns, supersedes: adjustment.id });
}
