"use client";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import type { Station } from "@/core/stations/station";
import { CHECKLIST_EXTRAS } from "./checklist-extras";
import { setCheck } from "@/storage/jobs";
import { Card } from "@/ui/card";
import { KeyCap } from "@/ui/key-cap";
import type { JobView } from "../job/use-job-records";

/** A station that is worked through with eyes and hands: lines to tick. */
export function Checklist({ view, station, onNext }: { view: JobView; station: Station; onNext(): void }) {
  const done = view.job.done[station.id] ?? [];
  const Extra = CHECKLIST_EXTRAS[station.id as keyof typeof CHECKLIST_EXTRAS] ?? null;
  return (
    <Card title={`${station.name}: ${done.length} of ${station.checks.length} done`} grow>
      {station.checks.map((line) => (
        <FormControlLabel
          key={line}
          sx={{ display: "flex", my: 1, "& .MuiFormControlLabel-label": { fontSize: 21, lineHeight: 1.3 } }}
          control={
            <Checkbox
              checked={done.includes(line)}
              onChange={(event) => void setCheck(view.job.id, station.id, line, event.target.checked)}
              sx={{ "& svg": { fontSize: 34 } }}
            />
          }
          label={line}
        />
      ))}
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
