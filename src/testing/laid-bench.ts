import { layBench, type Laid } from "@/core/alignment/lay-bench";
import type { JobRecords } from "@/core/records/job-records";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import { aJob, aMachine, aTape } from "./records";

/** What stands on a bench at which nothing was heard, told or logged; give what matters to the case. */
export const laidBench = (
  records: Partial<JobRecords> = {},
  laid: Partial<Omit<Laid, "records">> = {},
): OnTheBench =>
  layBench()({
    records: { job: aJob(), machine: aMachine(), readings: [], adjustments: [], ...records },
    tape: aTape(),
    heard: null,
    circumstances: {},
    prior: [],
    peak: null,
    told: null,
    readFrom: null,
    session: 1,
    ...laid,
  });
