import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { workAt } from "@/core/records/job-speeds";
import { database } from "@/storage/database";
import { changeJob } from "@/storage/jobs";
import type { JobView } from "../job/use-job-records";

/** Which reference tape is in the machine; every reading keeps the one that it was taken with. */
export function TapeChoice({ view: { job, tape } }: { view: JobView }) {
  const tapes = useLiveQuery(
    () => database.tapes.filter(({ speedCmPerS }) => speedCmPerS === job.speedCmPerS).sortBy("name"),
    [job.speedCmPerS],
  );
  const choices = [...(tapes ?? []).filter(({ id }) => id !== tape.id), tape].sort((a, b) =>
    a.name.localeCompare(b.name),
  );
  return (
    <TextField
      select
      size="small"
      fullWidth
      label="Tape in the machine"
      value={tape.id}
      onChange={({ target }) =>
        void changeJob(job.id, workAt(job, { speedCmPerS: job.speedCmPerS, tapeId: target.value }))
      }
      sx={{ mt: 1 }}
    >
      {choices.map(({ id, name }) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
