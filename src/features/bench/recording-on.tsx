import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { blankTapeSchema, type Job } from "@/core/records/job";
import { changeJob, newId } from "@/storage/jobs";

interface RecordingOnProps {
  job: Job;
  chosen: string | undefined;
  onChoose(blankTapeId: string | undefined): void;
}

/** Which blank tape is recorded on; every reading of the record side belongs to one. */
export function RecordingOn({ job, chosen, onChoose }: RecordingOnProps) {
  const [name, setName] = useState("");
  const blanks = job.blankTapes ?? [];
  const parsed = blankTapeSchema.shape.name.safeParse(name);
  const taken = blanks.some((one) => one.name === name.trim());
  const add = async () => {
    if (!parsed.success || taken) return;
    const blank = { id: newId(), name: parsed.data };
    await changeJob(job.id, { blankTapes: [...blanks, blank] });
    onChoose(blank.id);
    setName("");
  };
  return (
    <Box sx={{ mt: 1 }}>
      <Box sx={{ fontWeight: 600 }}>Recording on</Box>
      <Box
        role="group"
        aria-label="Recording on"
        sx={{ display: "flex", flexWrap: "wrap", gap: 0.5, mt: 0.5 }}
      >
        {blanks.map(({ id, name: blank }) => (
          <Button
            key={id}
            variant={id === chosen ? "contained" : "outlined"}
            color={id === chosen ? "primary" : "inherit"}
            aria-pressed={id === chosen}
            onClick={() => onChoose(id === chosen ? undefined : id)}
          >
            {blank}
          </Button>
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 0.5, mt: 1, alignItems: "flex-start" }}>
        <TextField
          size="small"
          label="Another blank tape"
          value={name}
          error={taken}
          helperText={taken ? "It is there already." : undefined}
          onChange={({ target }) => setName(target.value)}
        />
        <Button
          variant="outlined"
          color="inherit"
          disabled={!parsed.success || taken}
          onClick={() => void add()}
        >
          Add
        </Button>
      </Box>
    </Box>
  );
}
