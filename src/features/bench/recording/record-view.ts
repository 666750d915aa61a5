import type { OnTheBench } from "@/core/stations/on-the-bench";
import type { JobView } from "@/features/job/use-job-records";

/** A job's records with only the readings of the blank tape that is recorded on. */
export const onThisTape = (view: JobView, { circumstances }: OnTheBench): JobView => ({
  ...view,
  readings: view.readings.filter(({ context }) => context.recordingOn === circumstances.recordingOn),
});
