"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useLiveQuery } from "dexie-react-hooks";
import { useState } from "react";
import { ENGINE } from "@/core/stations/log-context";
import type { Reading } from "@/core/records/reading";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import { database } from "@/storage/database";
import { appendReadings, newId } from "@/storage/jobs";
import { READING_FONT } from "@/ui/theme";

interface SpeedAnswerProps {
  errorPercent: number;
  uncertaintyPercent: number;
  method: string;
  source: Reading["source"];
  seconds: number;
}

/** A speed with its honest uncertainty, large, and the way to keep it in a job. */
export function SpeedAnswer({ errorPercent, uncertaintyPercent, method, source, seconds }: SpeedAnswerProps) {
  const jobs = useLiveQuery(() => database.jobs.toArray(), []) ?? [];
  const open = jobs.filter(({ finishedAt }) => finishedAt === null);
  const [jobId, setJobId] = useState("");
  const [keptIn, setKeptIn] = useState<string | null>(null);
  const decimals = uncertaintyPercent < 0.02 ? 3 : uncertaintyPercent < 0.3 ? 2 : 1;
  const keep = async () => {
    const job = open.find(({ id }) => id === jobId);
    if (!job) return;
    await appendReadings([
      {
        id: newId(),
        jobId,
        station: "speed",
        quantity: "speedError",
        value: errorPercent,
        unit: "%",
        uncertainty: uncertaintyPercent,
        ownUncertainty: uncertaintyPercent,
        method,
        context: { channel: "both", tapeId: job.tapeId, nominalHz: 0, speedCmPerS: job.speedCmPerS, seconds },
        phase: "working",
        at: new Date().toISOString(),
        source,
        engine: ENGINE,
        evidenceId: null,
        supersedes: null,
      },
    ]);
    setKeptIn(job.number);
  };
  return (
    <Box>
      <Box
        role="meter"
        aria-label={`Speed error by ${method}`}
        aria-valuenow={errorPercent}
        aria-valuetext={`${fixed(errorPercent, decimals, true)} %`}
        sx={{ fontFamily: READING_FONT, fontSize: 44, fontWeight: 700, lineHeight: 1.15 }}
      >
        {fixed(errorPercent, decimals, true)}
        {THIN_SPACE}%
        <Box component="span" sx={{ fontSize: 22, fontWeight: 400, color: "text.secondary", ml: 1 }}>
          ± {fixed(uncertaintyPercent, decimals)}
        </Box>
      </Box>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", mt: 0.5 }}>
        <TextField
          select
          size="small"
          label="Keep in job"
          value={jobId}
          onChange={({ target }) => setJobId(target.value)}
          sx={{ width: 130 }}
        >
          {open.map(({ id, number }) => (
            <MenuItem key={id} value={id}>
              {number}
            </MenuItem>
          ))}
        </TextField>
        <Button color="inherit" variant="outlined" disabled={jobId === ""} onClick={() => void keep()}>
          Keep
        </Button>
        <Box role="status">{keptIn && `Kept in job ${keptIn}, as a working reading.`}</Box>
      </Box>
    </Box>
  );
}
