"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "@/ui/link";
import { useRef, useState } from "react";
import { inForce } from "@/core/records/job-records";
import { presentStation } from "@/core/alignment/station-state";
import { readingsCsv } from "@/core/formats/readings-csv";
import { exportJob } from "@/storage/bundles";
import { database } from "@/storage/database";
import { download, fileName } from "../job/download";
import { JobTapeLine, stationHref } from "../job/job-tape-line";
import { useJobAddress } from "../job/job-address";
import { useJobRecords, type JobView } from "../job/use-job-records";
import { MissingJob } from "../shell/missing-job";
import { SheetPaper } from "./sheet-paper";
import { SHEET_STYLE } from "./sheet-style";

export function SheetPage() {
  const { jobId } = useJobAddress();
  const view = useJobRecords(jobId);
  if (view === undefined) return <Box sx={{ p: 6, color: "text.secondary" }}>Writing the sheet…</Box>;
  if (view === null) return <MissingJob />;
  return <OpenSheet view={view} />;
}

function OpenSheet({ view }: { view: JobView }) {
  const { job, machine } = view;
  const paper = useRef<HTMLDivElement>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const name = fileName(job.number, machine.name);

  const html = () =>
    download(
      `${name}-sheet.html`,
      `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escaped(`Alignment sheet ${job.number}`)}</title><style>${SHEET_STYLE}</style></head><body>${paper.current?.innerHTML ?? ""}</body></html>\n`,
      "text/html",
    );
  const csv = async () => {
    const tapes = await database.tapes.toArray();
    const tapeName = (id: string) => tapes.find((tape) => tape.id === id)?.name ?? id;
    download(`${name}-readings.csv`, readingsCsv(inForce(view.readings), machine.name, tapeName), "text/csv");
  };
  const bundle = async () => {
    try {
      download(`${name}.unzel.json`, await exportJob(job.id), "application/json");
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };

  return (
    <Box sx={{ pb: 6 }}>
      <style>{SHEET_STYLE}</style>
      <Box className="no-print" sx={{ px: 2.5 }}>
        <Box
          component="header"
          sx={{ display: "flex", alignItems: "center", gap: 1, minHeight: 54, flexWrap: "wrap" }}
        >
          <Typography component="p" sx={{ fontSize: 17.5, fontWeight: 750 }}>
            {machine.name}
          </Typography>
          <Box sx={{ color: "text.secondary", flex: 1 }}>job {job.number} · Sheet</Box>
          <Button color="inherit" component={Link} href="/">
            Floor
          </Button>
          <Button color="inherit" component={Link} href={stationHref(job.id, presentStation(view))}>
            Bench
          </Button>
          <Button color="inherit" onClick={() => void bundle()}>
            Export job
          </Button>
          <Button color="inherit" onClick={() => void csv()}>
            Readings CSV
          </Button>
          <Button color="inherit" onClick={html}>
            Sheet HTML
          </Button>
          <Button variant="contained" onClick={() => window.print()}>
            Print
          </Button>
        </Box>
        <JobTapeLine records={view} here="sheet" />
        {trouble && <Alert severity="error">{trouble}</Alert>}
      </Box>
      <Box component="main" ref={paper} sx={{ mt: 1, "@media screen": { "& .sheet": { boxShadow: 3 } } }}>
        <SheetPaper view={view} />
      </Box>
    </Box>
  );
}

const escaped = (text: string) =>
  text.replace(/[&<>]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;" })[c] ?? c);
