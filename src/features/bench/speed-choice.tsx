import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { speedsOf, withoutSpeed, workAt } from "@/core/records/job-speeds";
import { tapesForSpeed } from "@/core/reference/speed-tone";
import { database } from "@/storage/database";
import { changeJob } from "@/storage/jobs";
import type { JobView } from "../job/use-job-records";
import { Choice } from "./choice";

/** Which of the machine's tape speeds is worked at; one that is new to the job is added with its best tape. */
export function SpeedChoice({ view, toDo }: { view: JobView; toDo: number[] }) {
  const { job, machine, readings } = view;
  const [missing, setMissing] = useState<number | null>(null);
  const speeds = [...new Set([...machine.speedsCmPerS, ...speedsOf(job).map((s) => s.speedCmPerS)])];
  if (speeds.length < 2) return null;
  const choose = async (speedCmPerS: number) => {
    const known = speedsOf(job).find((speed) => speed.speedCmPerS === speedCmPerS);
    const tapeId = known?.tapeId ?? tapesForSpeed(await database.tapes.toArray(), speedCmPerS).at(0)?.id;
    setMissing(tapeId ? null : speedCmPerS);
    if (tapeId) await changeJob(job.id, workAt(job, { speedCmPerS, tapeId }));
  };
  const without = readings.length === 0 ? withoutSpeed(job) : null;
  return (
    <>
      <Choice
        label="Tape speed, cm/s"
        choices={speeds.sort((a, b) => a - b).map(String)}
        value={String(job.speedCmPerS)}
        onChoose={(speed) => speed && void choose(Number(speed))}
      />
      {toDo.length > 0 && (
        <Box sx={{ mt: 0.5, color: "text.secondary", lineHeight: 1.3 }}>
          Still to do: {toDo.join(", ")} cm/s
        </Box>
      )}
      {without && (
        <Button size="small" color="inherit" sx={{ mt: 0.5 }} onClick={() => void changeJob(job.id, without)}>
          Leave {job.speedCmPerS} cm/s out of this job
        </Button>
      )}
      {missing !== null && (
        <Alert severity="warning" sx={{ mt: 0.5 }} onClose={() => setMissing(null)}>
          There is no tape with a speed tone for {missing} cm/s. Enter one under Tapes.
        </Alert>
      )}
    </>
  );
}
