import type { Part } from "@/core/workshop/part";
import type { Job } from "./job";

/** The part that a job of a version without parts waits for; null where it waits for nothing. */
export function partOfWaiting({ id, waiting, updatedAt }: Job): Part | null {
  return (
    waiting && {
      id: `${id}-waits`.slice(-80),
      jobId: id,
      name: waiting.for,
      count: 1,
      station: waiting.after,
      from: "",
      entryId: null,
      steps: [{ at: updatedAt, state: "ordered", expected: waiting.until }],
      updatedAt: updatedAt,
    }
  );
}
