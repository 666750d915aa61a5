"use client";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { Station } from "@/core/stations/station";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import type { ListenerState } from "./listening/use-listener";
import type { JobView } from "../job/use-job-records";
import { ChecklistLines } from "./checklist-lines";

export interface ChecklistProps {
  view: JobView;
  station: Station;
  onNext(): void;
  /** What is heard, where a station keeps of it. */
  listener: ListenerState;
  /** Begins one pass of a whole tape, as found. */
  onPass(): void;
  /** What stands beside its lines. */
  children?: ReactNode;
}

/** A station that is worked through with eyes and hands: lines to tick. */
export function Checklist({ view, station, onNext, children }: ChecklistProps) {
  const done = view.job.done[station.id] ?? [];
  return (
    <Card title={`${station.name}: ${done.length} of ${station.checks.length} done`} grow>
      <ChecklistLines view={view} station={station} size="large" />
      {children}
      <Button
        variant={done.length === station.checks.length ? "contained" : "outlined"}
        onClick={onNext}
        sx={{ mt: 2 }}
      >
        Next station<KeyCap>]</KeyCap>
      </Button>
    </Card>
  );
}
