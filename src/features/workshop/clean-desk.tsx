"use client";
import Button from "@mui/material/Button";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import type { ChecklistProps } from "../bench/checklist";
import { ChecklistLines } from "../bench/checklist-lines";
import { DeskColumns } from "./desk-columns";
import { TapeChecks } from "./tape-checks";

/** Cleaning, and what is looked at of a tape before it goes in: one that sheds undoes the cleaning. */
export function CleanDesk({ view, station, onNext }: ChecklistProps) {
  const ticked = view.job.done[station.id] ?? [];
  const isDone = ticked.length === station.checks.length;
  return (
    <DeskColumns
      middle={
        <Card title={`${station.name}: ${ticked.length} of ${station.checks.length} done`} grow>
          <ChecklistLines view={view} station={station} size="large" />
          <Button variant={isDone ? "contained" : "outlined"} onClick={onNext} sx={{ mt: 2 }}>
            Next station<KeyCap>]</KeyCap>
          </Button>
        </Card>
      }
      asideName="Tapes before they go in"
      equal
    >
      <TapeChecks view={view} />
    </DeskColumns>
  );
}
