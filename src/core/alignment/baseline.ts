import type { JobRecords } from "@/core/records/job-records";
import { inForce } from "@/core/records/job-records";
import { askedBy } from "@/core/workshop/symptoms";
import type { Station } from "@/core/stations/station";
import { measures, routeOf, stationsOf } from "./registry";

/** What is to be measured as found before anything is opened, for the symptoms of a job. */
export interface Baseline {
  /** In working order, with whether it has been. */
  stations: Array<{ station: Station; taken: boolean }>;
  /** Stations that the symptoms ask for and the route of the job leaves out. */
  leftOut: Station[];
}

/** Without symptoms it is speed and flutter: no machine should be opened without them. */
const ALWAYS = ["speed", "flutter"];

export function baselineOf(records: JobRecords): Baseline {
  const { job, machine } = records;
  const asked = new Set([...ALWAYS, ...askedBy(job.symptoms ?? []).stations]);
  const onRoute = routeOf(records);
  const isAsked = ({ id }: Station) => asked.has(id);
  return {
    stations: onRoute
      .filter((station) => isAsked(station) && measures(station))
      .map((station) => ({
        station,
        taken: inForce(records.readings).some(
          (reading) => reading.station === station.id && reading.phase === "as found",
        ),
      })),
    leftOut: stationsOf(machine).filter((station) => isAsked(station) && !onRoute.includes(station)),
  };
}
