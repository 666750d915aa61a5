"use client";
import Button from "@mui/material/Button";
import type { Station } from "@/core/stations/station";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import type { JobView } from "../job/use-job-records";
import { CHECKLIST_EXTRAS } from "./checklist-extras";
import { ChecklistLines } from "./checklist-lines";

export interface ChecklistProps {
  view: JobView;
  station: Station;
  onNext(): void;
}

/** A station that is worked through with eyes and hands: lines to tick. */
export function Checklist({ view, station, onNext }: ChecklistProps) {
  const done = view.job.done[station.id] ?? [];
  const Extra = CHECKLIST_EXTRAS[station.id as keyof typeof CHECKLIST_EXTRAS] ?? null;
  return (
    <Card title={`${station.name}: ${done.length} of ${station.checks.length} done`} grow>
      <ChecklistLines view={view} station={station} size="large" />
      {Extra && <Extra view={view} />}
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
