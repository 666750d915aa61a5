"use client";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import type { Station } from "@/core/stations/station";
import { setCheck } from "@/storage/jobs";
import type { JobView } from "../job/use-job-records";

/** The lines of a station that have to be ticked. */
export function ChecklistLines({
  view,
  station,
  size,
}: {
  view: JobView;
  station: Station;
  size: "large" | "small";
}) {
  const done = view.job.done[station.id] ?? [];
  const large = size === "large";
  return station.checks.map((line) => (
    <FormControlLabel
      key={line}
      sx={{
        display: "flex",
        my: large ? 1 : 0.25,
        "& .MuiFormControlLabel-label": { fontSize: large ? 21 : 16, lineHeight: 1.3 },
      }}
      control={
        <Checkbox
          checked={done.includes(line)}
          onChange={(event) => void setCheck(view.job.id, station.id, line, event.target.checked)}
          sx={{ "& svg": { fontSize: large ? 34 : 26 } }}
        />
      }
      label={line}
    />
  ));
}
