import { useEffect } from "react";
import { firstRole } from "@/core/alignment/one-pass";
import type { Circumstances } from "@/core/records/reading";
import type { MeasuringStation, Station } from "@/core/stations/station";
import type { JobView } from "@/features/job/use-job-records";
import { NOTHING_WANTED } from "@/workers/listener-api";
import { useWatchedRecording } from "../recording/use-watched-recording";
import type { ListenerState } from "./use-listener";

interface Wants {
  view: JobView;
  /** Where one works that measures. */
  measuring: MeasuringStation | null;
  /** What a station of eyes and hands listens to; null for nothing. */
  listensTo: Extract<Station, { kind: "checklist" }>["listensTo"] | null;
  circumstances: Circumstances;
  /** One pass over the tape serves several stations: each of them is heard. */
  passes: boolean;
  listener: ListenerState;
}

/** Asks the source for what the station that is worked at needs to hear. @returns whether a control is worked */
export function useWants({ view, measuring, listensTo, circumstances, passes, listener }: Wants): boolean {
  const { job, tape } = view;
  const { want } = listener;
  const { flutter = false, role = null, sequence = null, follows = null } = measuring?.hears ?? {};
  const recording = useWatchedRecording(job.id, measuring?.hears.what === "recording", listener);
  const quiet = measuring?.hears.quiet?.(circumstances) ?? null;
  const blanking = (measuring?.hears.blanking ?? false) && circumstances.eraseOf === "blanking";
  const controls =
    (measuring?.circumstances.includes("control") ?? false) && circumstances.control !== undefined;
  const ticks = flutter && circumstances.hearsTick === true;
  const wind = listensTo === "mechanism";
  useEffect(
    () =>
      want(
        passes
          ? { ...NOTHING_WANTED, flutter: true, role: firstRole(tape) }
          : { flutter, role, follows, sequence, recording, quiet, blanking, controls, ticks, wind },
      ),
    [want, passes, tape, flutter, role, follows, sequence, recording, quiet, blanking, controls, ticks, wind],
  );
  return controls;
}
