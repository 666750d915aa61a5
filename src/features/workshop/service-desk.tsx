"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { openLines } from "@/core/workshop/strip-down";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import type { ChecklistProps } from "../bench/checklist";
import { ChecklistLines } from "../bench/checklist-lines";
import { DeskColumns } from "./desk-columns";
import { EarlierLogCard } from "./earlier-log-card";
import { PartsCard } from "./parts-card";
import { StripDown } from "./strip-down";

/** Mechanical service: the strip-down log, what has to be ticked, and the parts that are waited for. */
export function ServiceDesk({ view, station, onNext }: ChecklistProps) {
  const ticked = view.job.done[station.id] ?? [];
  const open = openLines(view.stripDown ?? []).length;
  const isDone = ticked.length === station.checks.length && open === 0;
  return (
    <DeskColumns middle={<StripDown view={view} station={station.id} />} asideName="Service and parts">
      <PartsCard view={view} station={station.id} />
      <Card title={`${station.name}: ${ticked.length} of ${station.checks.length} ticked`}>
        <ChecklistLines view={view} station={station} size="small" />
        {open > 0 && (
          <Box sx={{ color: "warning.main", fontWeight: 600, mt: 0.5 }}>
            Not done while {open === 1 ? "a line is" : `${open} lines are`} open.
          </Box>
        )}
        <Button variant={isDone ? "contained" : "outlined"} fullWidth onClick={onNext} sx={{ mt: 1 }}>
          Next station<KeyCap>]</KeyCap>
        </Button>
      </Card>
      <EarlierLogCard jobId={view.job.id} machineId={view.machine.id} />
    </DeskColumns>
  );
}
