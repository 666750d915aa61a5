"use client";
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { flutterNotKept } from "@/core/measure/flutter";
import { speedsOf } from "@/core/records/job-speeds";
import { flutterReadings } from "@/core/stations/flutter";
import type { LogContext } from "@/core/stations/log-context";
import { speedReadings } from "@/core/stations/speed";
import { PHASES, type Phase } from "@/core/records/reading";
import type { RecordingReport } from "@/core/recordings/measure-recording";
import type { StretchReport } from "@/core/recordings/measure-stretches";
import { frequencyUncertaintyOf, type ReferenceTape } from "@/core/reference/reference-tape";
import { appendReadings, newId } from "@/storage/jobs";
import { useKnownJobs } from "../job/use-job-records";

interface AttachDialogProps {
  open: boolean;
  fileName: string;
  report: RecordingReport;
  tapes: ReferenceTape[];
  onClose(): void;
}

/** Logs speed and flutter of one stretch of a recording in a job. */
export function AttachDialog({ open, fileName, report, tapes, onClose }: AttachDialogProps) {
  const jobs = useKnownJobs();
  const usable = report.stretches.filter(({ speed }) => speed !== null);
  const [jobId, setJobId] = useState("");
  const [phase, setPhase] = useState<Phase>("as found");
  const [which, setWhich] = useState(0);
  const [withSpeed, setWithSpeed] = useState(true);
  const [withFlutter, setWithFlutter] = useState(true);
  const [speed, setSpeed] = useState("");
  const [done, setDone] = useState<{ severity: "success" | "error"; says: string } | null>(null);
  const records = jobs?.find(({ job }) => job.id === jobId);
  const speeds = records ? speedsOf(records.job) : [];
  // nobody but the technician knows at which of several speeds it was recorded
  const at = speeds.length === 1 ? speeds[0] : speeds.find((one) => String(one.speedCmPerS) === speed);
  const stretch: StretchReport | undefined = usable[which];
  const flutter = stretch?.flutter ?? null;
  const noFlutter = flutter ? flutterNotKept(flutter) : "It needs a tone above 900 Hz.";

  const attach = async () => {
    if (!records || !at || !stretch?.speed) return;
    const { job } = records;
    const tapeId = report.by.kind === "tape" ? report.by.id : at.tapeId;
    const tape = tapes.find(({ id }) => id === tapeId);
    const context = (channel: string): LogContext => ({
      newId,
      jobId: job.id,
      channel,
      tapeId,
      tapeUncertaintyPercent: tape ? frequencyUncertaintyOf(tape) : 1,
      nominalHz: stretch.nominalHz ?? stretch.speed!.frequencyHz,
      speedCmPerS: at.speedCmPerS,
      phase,
      at: new Date().toISOString(),
      source: { kind: "file", name: fileName },
    });
    const readings = [
      ...(withSpeed ? speedReadings(stretch.speed, context(stretch.speed.channel)) : []),
      ...(withFlutter && flutter && noFlutter === null
        ? flutterReadings(flutter, context(flutter.channel))
        : []),
    ];
    try {
      await appendReadings(readings);
      setDone({ severity: "success", says: `Logged in job ${job.number} as ${phase}.` });
    } catch (error) {
      const says = `It could not be stored (${(error as Error).message}). Nothing was logged; try again.`;
      setDone({ severity: "error", says });
    }
  };

  return (
    <Dialog open={open} onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>Attach to a job</DialogTitle>
      <DialogContent sx={{ display: "flex", flexDirection: "column", gap: 2, "&&": { pt: 1 } }}>
        <TextField select label="Job" value={jobId} onChange={(event) => setJobId(event.target.value)}>
          {(jobs ?? []).map(({ job, machine }) => (
            <MenuItem key={job.id} value={job.id}>
              {job.number} · {machine.name}
            </MenuItem>
          ))}
        </TextField>
        {speeds.length > 1 && (
          <TextField
            select
            label="Recorded at"
            value={at ? speed : ""}
            helperText={at ? undefined : "The job has several tape speeds: say at which this was."}
            onChange={(event) => setSpeed(event.target.value)}
          >
            {speeds.map(({ speedCmPerS }) => (
              <MenuItem key={speedCmPerS} value={String(speedCmPerS)}>
                {speedCmPerS} cm/s
              </MenuItem>
            ))}
          </TextField>
        )}
        <TextField
          select
          label="Stretch"
          value={String(which)}
          onChange={(event) => setWhich(Number(event.target.value))}
        >
          {usable.map(({ what, startSeconds, endSeconds }, i) => (
            <MenuItem key={`${what} ${startSeconds}`} value={String(i)}>
              {what}, {startSeconds.toFixed(0)} to {endSeconds.toFixed(0)} s
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="It is"
          value={phase}
          onChange={(event) => setPhase(event.target.value as Phase)}
        >
          {PHASES.map((one) => (
            <MenuItem key={one} value={one}>
              {one}
            </MenuItem>
          ))}
        </TextField>
        <div>
          <FormControlLabel
            control={<Checkbox checked={withSpeed} onChange={(_, on) => setWithSpeed(on)} />}
            label="Speed"
          />
          <FormControlLabel
            control={
              <Checkbox
                checked={withFlutter && noFlutter === null}
                disabled={noFlutter !== null}
                onChange={(_, on) => setWithFlutter(on)}
              />
            }
            label={noFlutter === null ? "Wow and flutter" : `Wow and flutter: ${noFlutter}`}
          />
        </div>
        {stretch?.warnings.map((warning) => (
          <Alert key={warning} severity="warning">
            {warning}
          </Alert>
        ))}
        {done && <Alert severity={done.severity}>{done.says}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Close
        </Button>
        <Button
          variant="contained"
          disabled={!at || !(withSpeed || (withFlutter && noFlutter === null))}
          onClick={() => void attach()}
        >
          Log it
        </Button>
      </DialogActions>
    </Dialog>
  );
}
