import { actsAt } from "@/core/records/job-speeds";
import type { Adjuster } from "@/core/records/machine";
import type { OnTheBench } from "./on-the-bench";
import type { MeasuringStation } from "./station";

/** What can be turned at a station as the machine plays now: at its tape speed, in its direction, for its head, for the
 * type of tape that is recorded on. */
export function actingAdjusters(
  { id, apartBy }: Pick<MeasuringStation, "id" | "apartBy">,
  { here: { machine, job, blanks = [] }, circumstances: { side, head, recordingOn } }: OnTheBench,
): Adjuster[] {
  const type = blanks.find(({ id: blank }) => blank === recordingOn)?.type ?? null;
  return machine.adjusters.filter(
    (one) =>
      one.kind === "turn" &&
      one.sets === id &&
      actsAt(one, job.speedCmPerS) &&
      (!apartBy.includes("head") || one.head === head) &&
      (one.tapeType === undefined || type === null || one.tapeType === type) &&
      (one.side === undefined || side === undefined || one.side === side),
  );
}
