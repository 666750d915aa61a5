import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { stationsOf } from "@/core/alignment/registry";
import { changeJob } from "@/storage/jobs";
import { Card } from "@/ui/card";
import type { JobView } from "./use-job-records";

/** The stations that the job goes through; what was logged at one that is left out stays. */
export function RouteCard({ view: { job, machine } }: { view: JobView }) {
  const leftOut = job.leftOut ?? [];
  return (
    <Card title="Route">
      <Typography sx={{ color: "text.secondary" }}>
        A station without a tick is left out of the tape line and the sheet.
      </Typography>
      {stationsOf(machine)
        .filter(({ kind }) => kind !== "sheet")
        .map(({ id, name }) => (
          <FormControlLabel
            key={id}
            label={name}
            control={
              <Checkbox
                checked={!leftOut.includes(id)}
                onChange={({ target }) =>
                  void changeJob(job.id, {
                    leftOut: target.checked ? leftOut.filter((one) => one !== id) : [...leftOut, id],
                  })
                }
              />
            }
          />
        ))}
    </Card>
  );
}
