import type { JobRecords } from "@/core/records/job-records";
import { memo } from "react";
import { blankStates, stationState } from "@/core/alignment/station-state";
import { routeOf } from "@/core/alignment/registry";
import { goesOn, placeOfWork, type GoesOn } from "@/core/alignment/plan";
import { expectedOn, PART_WORDS, stateOf } from "@/core/workshop/part";
import type { Station } from "@/core/stations/station";
import { shortDay } from "@/ui/short-day";
import { TapeLine } from "@/ui/tape-line";

export const stationHref = (jobId: string, station: Station): string =>
  station.kind === "sheet" ? `/jobs/${jobId}/sheet` : `/jobs/${jobId}/bench/${station.id}`;

/** A stripe for each blank tape of a record station. */
function stripesOf(records: JobRecords, station: Station) {
  const names = records.job.blankTapes ?? [];
  return blankStates(records, station)?.map((state, i) => ({ name: names[i].name, state }));
}

/** Where the tape is cut: before the first station that waits, with its part that comes last. */
function gapOf({ waits: [first] }: GoesOn) {
  if (!first) return null;
  const [last] = first.parts.toSorted((a, b) => (expectedOn(b) ?? "9").localeCompare(expectedOn(a) ?? "9"));
  const day = expectedOn(last);
  const what = last.name.length > NAME_FITS ? `${last.name.slice(0, NAME_FITS - 1)}…` : last.name;
  return { before: first.station.id, text: `${what} · ${day ? shortDay(day) : PART_WORDS[stateOf(last)]}` };
}
const NAME_FITS = 14;

/** The tape line of a job; the playhead stands at `here`, or where the work is. */
export const JobTapeLine = memo(function JobTapeLine({
  records,
  here,
  onGoTo,
}: {
  records: JobRecords;
  here?: string;
  /** Goes to a station without asking the server; left out, its piece is an ordinary link. */
  onGoTo?(href: string): void;
}) {
  const { job } = records;
  const plan = goesOn(records);
  return (
    <TapeLine
      label={`Stations of job ${job.number}`}
      segments={routeOf(records).map((station) => ({
        id: station.id,
        name: station.name,
        short: station.short,
        state: stationState(records, station),
        stripes: stripesOf(records, station),
        href: stationHref(job.id, station),
      }))}
      onGoTo={onGoTo}
      present={here ?? (job.finishedAt ? null : placeOfWork(records, plan).id)}
      gap={job.finishedAt === null ? gapOf(plan) : null}
    />
  );
});
