import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { Link } from "@/ui/link";
import { useState } from "react";
import { beltChangeSchema, type BeltChange } from "@/core/workshop/belt-change";
import { firstIssue } from "@/core/formats/import-error";
import { database } from "@/storage/database";
import { changeBelts, newId } from "@/storage/jobs";

interface BeltIntoJobProps {
  /** What the rule says of the belt that goes on; its numbers are NaN while they are not typed. */
  belt: Omit<BeltChange, "id" | "at" | "name">;
}

/** Writes the belt that goes on into a job, so that what it does to the speed can be held against what was predicted. */
export function BeltIntoJob({ belt }: BeltIntoJobProps) {
  const jobs = useLiveQuery(() => database.jobs.orderBy("updatedAt").reverse().toArray(), []) ?? [];
  const machines = useLiveQuery(() => database.machines.toArray(), []) ?? [];
  const open = jobs.filter(({ finishedAt }) => finishedAt === null);
  const [jobId, setJob] = useState("");
  const [name, setName] = useState("");
  const [said, say] = useState<{ jobId: string; text: string } | { jobId: null; text: string } | null>(null);
  const write = async () => {
    const parsed = beltChangeSchema.safeParse({ ...belt, id: newId(), at: new Date().toISOString(), name });
    if (!parsed.success) return say({ jobId: null, text: firstIssue(parsed.error) });
    await changeBelts(jobId, (belts) => [...belts, parsed.data]);
    say({ jobId, text: `${parsed.data.name} is in the job.` });
    setName("");
  };
  if (open.length === 0) return null;
  return (
    <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center", mt: 1.5 }}>
      <TextField
        size="small"
        label="Which belt it is"
        value={name}
        onChange={({ target }) => setName(target.value.slice(0, 80))}
        sx={{ width: 178 }}
      />
      <TextField
        select
        size="small"
        label="Into the job"
        value={open.some(({ id }) => id === jobId) ? jobId : ""}
        onChange={({ target }) => setJob(target.value)}
        sx={{ width: 178 }}
      >
        {open.map(({ id, number, machineId }) => (
          <MenuItem key={id} value={id}>
            {number} {machines.find((machine) => machine.id === machineId)?.name}
          </MenuItem>
        ))}
      </TextField>
      <Button variant="outlined" disabled={jobId === "" || name.trim() === ""} onClick={() => void write()}>
        It goes on
      </Button>
      {said && (
        <Box role="status" sx={{ fontWeight: 600, color: said.jobId ? "success.main" : "error.main" }}>
          {said.jobId ? <Link href={`/jobs/${said.jobId}/bench/service`}>{said.text}</Link> : said.text}
        </Box>
      )}
    </Box>
  );
}
