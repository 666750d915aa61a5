"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { Link } from "@/ui/link";
import { useRouter } from "next/navigation";
import { useCallback, useState } from "react";
import { placeOfWork } from "@/core/alignment/plan";
import { uncertaintyText } from "@/core/reference/reference-tape";
import { limitFor } from "@/core/alignment/registry";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { exportJob } from "@/storage/bundles";
import { deleteJob } from "@/storage/deleted-jobs";
import { changeJob } from "@/storage/jobs";
import { service } from "@/core/stations/service";
import { Card } from "@/ui/card";
import { PartsCard } from "../workshop/parts-card";
import { MissingJob } from "../shell/missing-job";
import { download, fileName } from "./download";
import { JobTapeLine, stationHref } from "./job-tape-line";
import { RouteCard } from "./route-card";
import { useJobAddress } from "./job-address";
import { useJobRecords, type JobView } from "./use-job-records";
import { useJobArchive } from "./use-job-archive";
import { useKeptText } from "./use-kept-text";

export function JobPage() {
  const { jobId } = useJobAddress();
  const view = useJobRecords(jobId);
  if (view === undefined) return <Box sx={{ p: 6, color: "text.secondary" }}>Opening the job…</Box>;
  if (view === null) return <MissingJob />;
  return <JobForm view={view} />;
}

function JobForm({ view }: { view: JobView }) {
  const { job, machine } = view;
  const router = useRouter();
  const [trouble, setTrouble] = useState<string | null>(null);
  const [deleting, setDeleting] = useState(false);
  const complaint = useKeptText(
    `complaint-${job.id}`,
    job.complaint,
    useCallback((text) => changeJob(job.id, { complaint: text }), [job.id]),
  );
  const notes = useKeptText(
    `notes-${job.id}`,
    job.notes,
    useCallback((text) => changeJob(job.id, { notes: text }), [job.id]),
  );
  const archive = useJobArchive();
  const house = TOLERANCE_CLASSES[machine.toleranceClass];

  const exportIt = async () => {
    try {
      download(
        `${fileName(job.number, machine.name)}.unzel.json`,
        await exportJob(job.id),
        "application/json",
      );
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };

  return (
    <Box sx={{ maxWidth: 1320, mx: "auto", px: 3.5, pb: 6 }}>
      <Box
        component="header"
        sx={{ display: "flex", alignItems: "center", gap: 1.5, minHeight: 68, flexWrap: "wrap" }}
      >
        <Typography variant="h1">{machine.name}</Typography>
        <Box sx={{ color: "text.secondary", flex: 1 }}>job {job.number}</Box>
        <Button color="inherit" component={Link} href="/">
          Floor
        </Button>
        <Button color="inherit" component={Link} href={`/jobs/${job.id}/sheet`}>
          Sheet
        </Button>
        <Button variant="contained" component={Link} href={stationHref(job.id, placeOfWork(view))}>
          To the bench
        </Button>
      </Box>
      <JobTapeLine records={view} />
      {trouble && <Alert severity="error">{trouble}</Alert>}
      <Box component="main" sx={{ display: "grid", gap: 2, gridTemplateColumns: { md: "1fr 1fr" }, mt: 1 }}>
        <Card title="Complaint">
          <TextField
            label="In the owner's words"
            multiline
            minRows={4}
            fullWidth
            margin="dense"
            {...complaint}
          />
          <TextField label="Notes" multiline minRows={4} fullWidth margin="dense" {...notes} />
        </Card>
        <Card title="Machine">
          <Typography>{machine.description || "No description."}</Typography>
          <Typography sx={{ mt: 1 }}>
            Held to <b>{house.name}</b>: speed ±{limitFor(machine, "speedError")} %.
          </Typography>
          {view.speeds.map(({ speedCmPerS, tape }) => (
            <Typography key={speedCmPerS} sx={{ mt: 1 }}>
              At {speedCmPerS} cm/s: {tape.name}, ±{uncertaintyText(tape)} %.
            </Typography>
          ))}
        </Card>
        <PartsCard view={view} station={service.id} />
        <RouteCard view={view} />
        <Card title="This job">
          <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
            <Button
              variant="outlined"
              onClick={() =>
                void changeJob(job.id, { finishedAt: job.finishedAt ? null : new Date().toISOString() })
              }
            >
              {job.finishedAt ? "Take up again" : "Finished"}
            </Button>
            <Button variant="outlined" onClick={() => void exportIt()}>
              Export job
            </Button>
            <Button
              variant="outlined"
              disabled={archive.share !== null}
              onClick={() =>
                void archive
                  .write(job.id, `${fileName(job.number, machine.name)}.unzel.zip`)
                  .catch((error: Error) => setTrouble(error.message))
              }
            >
              {archive.share === null
                ? "Export with pictures and sounds"
                : `Exporting, ${Math.round(100 * archive.share)} %`}
            </Button>
            <Button color="error" onClick={() => setDeleting(true)}>
              Delete…
            </Button>
          </Box>
        </Card>
      </Box>
      <Dialog open={deleting} onClose={() => setDeleting(false)}>
        <DialogTitle>Delete job {job.number}?</DialogTitle>
        <DialogContent>
          Its {view.readings.length} readings, pictures of runs and sounds go with it. From the floor it can
          be brought back for a day; after that only from an export.
        </DialogContent>
        <DialogActions>
          <Button color="inherit" onClick={() => void exportIt()}>
            Export first
          </Button>
          <Button color="inherit" onClick={() => setDeleting(false)}>
            Keep
          </Button>
          <Button color="error" onClick={() => void deleteJob(job.id).then(() => router.push("/"))}>
            Delete
          </Button>
        </DialogActions>
      </Dialog>
    </Box>
  );
}
