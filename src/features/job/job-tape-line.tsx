import type { JobRecords } from "@/core/records/job-records";
import { memo } from "react";
import { blankStates, presentStation, stationState } from "@/core/alignment/station-state";
import { routeOf } from "@/core/alignment/registry";
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
      present={here ?? (job.finishedAt ? null : presentStation(records).id)}
      gap={
        job.waiting && {
          after: job.waiting.after,
          text: `${job.waiting.for} · ${shortDay(job.waiting.until)}`,
        }
      }
    />
  );
});
