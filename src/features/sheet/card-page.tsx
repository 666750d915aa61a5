"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "@/ui/link";
import { useJobAddress } from "../job/job-address";
import { useJobRecords } from "../job/use-job-records";
import { MissingJob } from "../shell/missing-job";
import { OwnerCard, tapesForOwner } from "./owner-card";
import { SHEET_STYLE } from "./sheet-style";

/** The owner's card alone, to be printed and kept beside the machine. */
export function CardPage() {
  const { jobId } = useJobAddress();
  const view = useJobRecords(jobId);
  if (view === undefined) return <Box sx={{ p: 6, color: "text.secondary" }}>Writing the card…</Box>;
  if (view === null) return <MissingJob />;
  const { job, machine } = view;
  const isEmpty = tapesForOwner(view).length === 0;
  return (
    <Box sx={{ pb: 6 }}>
      <style>{SHEET_STYLE}</style>
      <Box
        component="header"
        className="no-print"
        sx={{ display: "flex", alignItems: "center", gap: 1, minHeight: 54, px: 2.5, flexWrap: "wrap" }}
      >
        <Typography component="p" sx={{ fontSize: 17.5, fontWeight: 750 }}>
          {machine.name}
        </Typography>
        <Box sx={{ color: "text.secondary", flex: 1 }}>job {job.number} · Owner&apos;s card</Box>
        <Button color="inherit" component={Link} href={`/jobs/${job.id}/bench/settings`}>
          Bench
        </Button>
        <Button color="inherit" component={Link} href={`/jobs/${job.id}/sheet`}>
          Sheet
        </Button>
        <Button variant="contained" disabled={isEmpty} onClick={() => window.print()}>
          Print
        </Button>
      </Box>
      <Box component="main" sx={{ mt: 1, "@media screen": { "& .sheet": { boxShadow: 3 } } }}>
        <article className="sheet">
          {isEmpty ? (
            <p>
              No tape of this job has its settings yet. At Settings on the bench, record its passport and keep
              how the front of the machine stands for it.
            </p>
          ) : (
            <OwnerCard view={view} />
          )}
        </article>
      </Box>
    </Box>
  );
}
