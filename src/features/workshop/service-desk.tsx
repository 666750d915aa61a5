"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { openLines } from "@/core/workshop/strip-down";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import type { ChecklistProps } from "../bench/checklist";
import { ChecklistLines } from "../bench/checklist-lines";
import { EarlierLogCard } from "./earlier-log-card";
import { PartsCard } from "./parts-card";
import { StripDown } from "./strip-down";

/** Mechanical service: the strip-down log, what has to be ticked, and the parts that are waited for. */
export function ServiceDesk({ view, station, onNext }: ChecklistProps) {
  const ticked = view.job.done[station.id] ?? [];
  const open = openLines(view.stripDown ?? []).length;
  const isDone = ticked.length === station.checks.length && open === 0;
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "1fr", md: "minmax(0, 1fr) 290px" },
        gridTemplateRows: { md: "minmax(0, 1fr)" },
        gap: 1.5,
        minHeight: 0,
        overflowY: { md: "visible !important" },
        "& > *": { overflowY: { md: "auto" } },
      }}
    >
      <StripDown view={view} station={station.id} />
      <Box
        role="region"
        aria-label="Service and parts"
        tabIndex={0}
        sx={{ display: "flex", flexDirection: "column", gap: 1.5, minWidth: 0 }}
      >
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
      </Box>
    </Box>
  );
}
