"use client";
import { createContext, useContext, type ReactNode } from "react";
import { nominalToneHz } from "@/core/reference/speed-tone";
import { useJobAddress } from "@/features/job/job-address";
import { useJobRecords, type JobView } from "@/features/job/use-job-records";
import { useListener, type ListenerState } from "./use-listener";

const Context = createContext<ListenerState | null>(null);

/** Keeps the source running while the pages of one job change. */
export function ListenerProvider({ children }: { children: ReactNode }) {
  const { jobId } = useJobAddress();
  const view = useJobRecords(jobId);
  return view ? (
    <Listening key={view.job.id} view={view}>
      {children}
    </Listening>
  ) : (
    children
  );
}

function Listening({ view, children }: { view: JobView; children: ReactNode }) {
  const { job, machine } = view;
  const nominalHz = nominalToneHz(view.tape, job.speedCmPerS);
  const listener = useListener({
    jobId: job.id,
    machineId: machine.id,
    machineName: machine.name,
    tape: view.tape,
    nominalHz,
    speedCmPerS: job.speedCmPerS,
    tracks: machine.tracks,
    geometry: {
      parts: machine.parts,
      speedCmPerS: job.speedCmPerS,
      firstSpeedCmPerS: machine.speedsCmPerS[0],
    },
  });
  return <Context.Provider value={listener}>{children}</Context.Provider>;
}

export function useJobListener(): ListenerState | null {
  return useContext(Context);
}
