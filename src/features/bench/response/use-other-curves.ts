import { useLiveQuery } from "dexie-react-hooks";
import { useMemo } from "react";
import { suspectBands, type TapeSuspicion } from "@/core/advice/tape-suspect";
import { allCurves, type ResponseCurve } from "@/core/alignment/response-curves";
import { database } from "@/storage/database";
import type { JobView } from "@/features/job/use-job-records";

/** A response that was logged before, to be laid over the present one. */
export interface OtherCurve {
  id: string;
  label: string;
  curves: ResponseCurve[];
}

const MOST_CHOICES = 30;
const day = new Intl.DateTimeFormat("en-GB", {
  day: "numeric",
  month: "short",
  hour: "2-digit",
  minute: "2-digit",
});

/** Responses of this and other jobs, newest first, and what several machines say against the tape that is in use. */
export function useOtherCurves(view: JobView): { choices: OtherCurve[]; suspicions: TapeSuspicion[] } {
  const stored = useLiveQuery(async () => {
    const [readings, jobs, machines] = await Promise.all([
      database.readings.toArray(),
      database.jobs.toArray(),
      database.machines.toArray(),
    ]);
    return jobs.flatMap((job) => {
      const machine = machines.find(({ id }) => id === job.machineId);
      const curves = allCurves(readings.filter(({ jobId }) => jobId === job.id));
      return machine && curves.length > 0 ? [{ job, machine, curves }] : [];
    });
  }, []);
  const tapeId = view.tape.id;
  return useMemo(() => {
    const all = stored ?? [];
    const choices = all.flatMap(({ job, machine, curves }) =>
      [...new Set(curves.map(({ at }) => at))].map((at): OtherCurve & { at: string } => {
        const together = curves.filter((curve) => curve.at === at);
        const where = job.id === view.job.id ? "" : `${machine.name}, `;
        return {
          id: `${job.id} ${at}`,
          at,
          label: `${where}${together[0].phase}, ${day.format(new Date(at))}`,
          curves: together,
        };
      }),
    );
    const withTape = all.flatMap(({ machine, curves }) =>
      curves
        .filter((curve) => curve.tapeId === tapeId)
        .slice(-2)
        .map(({ points }) => ({ machineId: machine.id, machineName: machine.name, points })),
    );
    return {
      choices: choices.toSorted((a, b) => b.at.localeCompare(a.at)).slice(0, MOST_CHOICES),
      suspicions: suspectBands(withTape),
    };
  }, [stored, tapeId, view.job.id]);
}
