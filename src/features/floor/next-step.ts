import type { JobRecords } from "@/core/alignment/records";
import { atSpeed, speedsOf } from "@/core/alignment/job-speeds";
import {
  measuredState,
  readingsOf,
  presentStation,
  readingVerdict,
  toRepeat,
} from "@/core/alignment/station-state";
import { limitFor } from "@/core/alignment/limits";
import { fixed } from "@/core/formats/number-text";
import { stationHref } from "../job/job-tape-line";

export interface NextStep {
  title: string;
  why: string;
  href: string;
}

/** What can be done on a job right now, or null when it is finished or waits for a part. */
export function nextStep(records: JobRecords): NextStep | null {
  const { job, machine } = records;
  if (job.finishedAt) return null;
  const station = presentStation(records);
  const step = (title: string, why: string): NextStep => ({
    title,
    why: `${machine.name} · ${why}`,
    href: stationHref(job.id, station),
  });
  if (job.waiting && job.waiting.after !== station.id) return null;
  if (job.waiting)
    return step(`${station.name} while the ${job.waiting.for} comes`, "some lines do not need it");
  if (toRepeat(records).some(({ id }) => id === station.id))
    return step(`Look again at ${station.name.toLowerCase()}`, "something was turned since");
  const speeds = speedsOf(job);
  const open = speeds.find(
    ({ speedCmPerS }) => measuredState(atSpeed(records, speedCmPerS), station) !== "settled",
  );
  const here = atSpeed(records, (open ?? speeds[0]).speedCmPerS);
  const atWhich = speeds.length > 1 ? ` at ${here.job.speedCmPerS} cm/s` : "";
  const last = readingsOf(here, station.id).at(-1);
  if (last) {
    const limit = limitFor(machine, last.quantity);
    const over = limit === null ? 0 : Math.abs(last.value) - limit;
    const verdict = readingVerdict(last, machine);
    return step(
      `Set ${station.name.toLowerCase()}${atWhich}`,
      verdict === "fail" ? `${fixed(over, 2)} % outside` : "inside; log it as left",
    );
  }
  if (station.kind === "checklist") return step(station.name, station.setUp[0] ?? "begin here");
  if (station.kind === "sheet") return step("Hand over the sheet", "everything is settled");
  return step(`Measure ${station.name.toLowerCase()}${atWhich}`, "as found comes first");
}
