import { goesOn } from "@/core/alignment/plan";
import { partName } from "@/core/workshop/part";
import type { JobRecords } from "@/core/records/job-records";
import { atSpeed, speedsOf } from "@/core/records/job-speeds";
import { measuredState, readingsOf, readingVerdict, toRepeat } from "@/core/alignment/station-state";
import { limitFor, measures, quantityOf } from "@/core/alignment/registry";
import type { Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import type { MeasuringStation } from "@/core/stations/station";
import { unitAfter } from "@/core/text/units";
import { fixed } from "@/core/text/number-text";
import { stationHref } from "../job/job-tape-line";

export interface NextStep {
  title: string;
  why: string;
  href: string;
}

/** What can be done on a job right now, or null when it is finished or all that is left waits for a part. */
export function nextStep(records: JobRecords): NextStep | null {
  const { job, machine } = records;
  if (job.finishedAt) return null;
  const { station, waits, upsetBy } = goesOn(records);
  if (station === null) return null;
  const parts = waits.flatMap((one) => one.parts);
  const waiting =
    parts.length > 0 ? ` · ${waits[0].station.name.toLowerCase()} waits for ${partName(parts[0])}` : "";
  const [upsets] = upsetBy;
  const doubt = upsets ? ", and puts this in doubt once it is there" : "";
  const step = (title: string, why: string): NextStep => ({
    title,
    why: `${machine.name} · ${waiting ? why.replace(/\.$/, "") : why}${waiting}${doubt}`,
    href: stationHref(job.id, station),
  });
  if (toRepeat(records).some(({ id }) => id === station.id))
    return step(`Look again at ${station.name.toLowerCase()}`, "something was turned since");
  if (measures(station)) return measuringStep(records, station, step);
  if (station.kind === "checklist") return step(station.name, station.setUp[0] ?? "begin here");
  return step("Hand over the sheet", "everything is settled");
}

/** What to do at a station that measures: its number, or the first one. */
function measuringStep(
  records: JobRecords,
  station: MeasuringStation,
  step: (title: string, why: string) => NextStep,
): NextStep {
  const { machine, job } = records;
  const speeds = station.apartBy.includes("speed") ? speedsOf(job) : speedsOf(job).slice(0, 1);
  const open = speeds.find(
    ({ speedCmPerS }) => measuredState(atSpeed(records, speedCmPerS), station) !== "settled",
  );
  const here = atSpeed(records, (open ?? speeds[0]).speedCmPerS);
  const atWhich = speeds.length > 1 ? ` at ${here.job.speedCmPerS} cm/s` : "";
  const last = readingsOf(here, station).at(-1);
  if (!last) return step(`Measure ${station.name.toLowerCase()}${atWhich}`, "as found comes first");
  return step(`Set ${station.name.toLowerCase()}${atWhich}`, standing(last, machine));
}

function standing(reading: Reading, machine: Machine): string {
  const { unit, decimals, atLeast } = quantityOf(reading.quantity);
  const limit = limitFor(machine, reading.quantity);
  const verdict = readingVerdict(reading, machine);
  if (limit === null || verdict === null) return "this machine has no limit for it; log it as left";
  switch (verdict) {
    case "fail":
      return atLeast
        ? `${fixed(limit - reading.value, decimals)}${unitAfter(unit)} short`
        : `${fixed(Math.abs(reading.value) - limit, decimals)}${unitAfter(unit)} outside`;
    case "cannot be told":
      return "known worse than its limit is wide; measure it again";
    case "close":
    case "pass":
      return "inside; log it as left";
  }
}
