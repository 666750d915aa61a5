"use client";
import type { JobRecords } from "@/core/records/job-records";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import Typography from "@mui/material/Typography";
import { Link } from "@/ui/link";
import { useRouter } from "next/navigation";
import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { goesOn, placeOfWork, type GoesOn } from "@/core/alignment/plan";
import { partName } from "@/core/workshop/part";
import { toRepeat } from "@/core/alignment/station-state";
import type { ImportPreview } from "@/storage/bundles";
import { lastBackup } from "@/storage/backup/last-backup";
import { bringBackJob, deletedJobs, letGoOfDeleted } from "@/storage/deleted-jobs";
import { loadDemoWorkshop } from "@/storage/first-visit";
import { FileButton } from "@/ui/file-button";
import { KeyCap } from "@/ui/key-cap";
import { JobTapeLine } from "../job/job-tape-line";
import { backupReminder } from "../backup/backup-age";
import type { KnownJob } from "@/storage/job-records";
import { useRecordsOf } from "../job/use-job-records";
import { isArchive, useJobArchive } from "../job/use-job-archive";
import { PageFrame } from "../shell/page-frame";
import { useDiffering } from "../differing-offer";
import { UnsignedFile } from "./unsigned-file";
import { shortDay } from "@/ui/short-day";
import { today } from "../workshop/today";
import { PartsStrip } from "./parts-strip";
import { useFloor } from "./use-floor";

/** What reads job files comes with the first file: the floor stands without it. */
const bundles = () => import("@/storage/bundles");

/** All jobs as tape lines, and what can be done now. */
export function Floor() {
  const router = useRouter();
  const archive = useJobArchive();
  const floor = useFloor();
  const count = floor?.jobs.length;
  const [message, setMessage] = useState<{ severity: "success" | "error"; text: string } | null>(null);
  const { offer, offers } = useDiffering();
  /** A job file without its checksum, until it is decided whether to bring it in. */
  const [unsigned, setUnsigned] = useState<{ name: string; text: string; preview: ImportPreview } | null>(
    null,
  );
  const deleted = useLiveQuery(deletedJobs) ?? [];
  useEffect(() => void letGoOfDeleted(), []);
  const last = useLiveQuery(lastBackup, []);
  const reminder = last === undefined ? null : backupReminder(last, count ?? 0, new Date());
  const bringBack = ({ id, number }: { id: string; number: string }) =>
    bringBackJob(id).then(
      () => setMessage({ severity: "success", text: `Job ${number} is back, with all that was its own.` }),
      (error: Error) => setMessage({ severity: "error", text: error.message }),
    );
  useHotkeys("n", () => router.push("/jobs/new"));

  const bring = async (text: string) => {
    const { jobNumbers, newReadings, differing } = await (await bundles()).importBundle(text);
    offer(differing);
    setMessage({
      severity: "success",
      text: `Imported job ${jobNumbers.join(", ")} with ${newReadings} new readings.`,
    });
  };
  const importFile = async (file: File) => {
    try {
      if (await isArchive(file)) {
        const number = await archive.bring(file);
        setMessage({ severity: "success", text: `Imported job ${number} with its pictures and sounds.` });
        return;
      }
      const text = await file.text();
      const { isSigned, previewBundle } = await bundles();
      if (isSigned(text)) await bring(text);
      else setUnsigned({ name: file.name, text, preview: await previewBundle(text) });
    } catch (error) {
      setMessage({ severity: "error", text: `${file.name}: ${(error as Error).message}` });
    }
  };
  const steps = floor?.steps ?? [];

  return (
    <PageFrame
      title="Floor"
      actions={
        <>
          <FileButton
            label="Job file"
            accept=".json,application/json,.zip,application/zip"
            onFile={(file) => void importFile(file)}
          >
            {archive.share === null ? "Import job" : `Importing, ${Math.round(100 * archive.share)} %`}
          </FileButton>
          <Button variant="contained" component={Link} href="/jobs/new">
            New job<KeyCap>N</KeyCap>
          </Button>
        </>
      }
    >
      <>
        {message && (
          <Alert severity={message.severity} onClose={() => setMessage(null)} sx={{ mb: 2 }}>
            {message.text}
          </Alert>
        )}
        {offers}
        {unsigned && (
          <UnsignedFile
            {...unsigned}
            onImport={() => {
              setUnsigned(null);
              void bring(unsigned.text).catch((error: Error) =>
                setMessage({ severity: "error", text: `${unsigned.name}: ${error.message}` }),
              );
            }}
            onCancel={() => setUnsigned(null)}
          />
        )}
        {deleted.map((job) => (
          <Alert
            key={job.id}
            severity="info"
            sx={{ mb: 2 }}
            action={
              <Button color="inherit" onClick={() => void bringBack(job)}>
                Bring it back
              </Button>
            }
          >
            Job {job.number} was deleted within the last day.
          </Alert>
        ))}
        {floor === undefined && (
          <Typography sx={{ color: "text.secondary", py: 6 }}>Opening the workshop…</Typography>
        )}
        {count === 0 && <EmptyFloor onTrouble={(text) => setMessage({ severity: "error", text })} />}
        {steps.length > 0 && (
          <>
            <Typography variant="h3" component="h2" sx={{ color: "text.secondary", mb: 1 }}>
              Can be done now
            </Typography>
            <Box
              sx={{
                display: "grid",
                gridTemplateColumns: { xs: "1fr", md: "repeat(3, 1fr)" },
                gap: 1.75,
                mb: 1.75,
              }}
            >
              {steps.map(({ title, why, href }, i) => (
                <Paper
                  key={href}
                  component={Link}
                  href={href}
                  elevation={0}
                  sx={{
                    border: i === 0 ? 2 : 1,
                    borderColor: i === 0 ? "primary.main" : "divider",
                    p: 1.75,
                    textDecoration: "none",
                    color: "text.primary",
                  }}
                >
                  <Box sx={{ fontSize: 18.5, fontWeight: 700 }}>{title}</Box>
                  <Box sx={{ color: "text.secondary", mt: 0.25 }}>{why}</Box>
                </Paper>
              ))}
            </Box>
          </>
        )}
        {floor && <PartsStrip jobs={floor.parts} />}
        {floor?.jobs.map((known) => (
          <JobRow key={known.job.id} known={known} read={floor.first.get(known.job.id)} />
        ))}
        {reminder && (
          <Box sx={{ color: "text.secondary", mt: 2 }}>
            {reminder}{" "}
            <Link href="/backup" style={{ color: "inherit" }}>
              Back up
            </Link>
          </Box>
        )}
      </>
    </PageFrame>
  );
}

/** A job: where its records were not read yet its tape line is read and drawn once somebody scrolls to it. */
function JobRow({ known, read }: { known: KnownJob; read: JobRecords | undefined }) {
  const { job, machine } = known;
  const row = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState(false);
  const own = useRecordsOf(known, seen && read === undefined);
  const records = read ?? own;
  // a row that was read with the first may stand farther down later
  const isDrawn = records !== undefined;
  useEffect(() => {
    if (isDrawn || !row.current) return;
    const watch = new IntersectionObserver(
      ([entry]) => {
        if (!entry.isIntersecting) return;
        setSeen(true);
        watch.disconnect();
      },
      { rootMargin: "300px" },
    );
    watch.observe(row.current);
    return () => watch.disconnect();
  }, [isDrawn]);
  if (records) return <FloorJob records={records} />;
  return (
    <Box
      ref={row}
      component="article"
      aria-label={`Job ${job.number}, ${machine.name}`}
      sx={{ borderTop: 1, borderColor: "divider", pt: 0.75, minHeight: ROW_HEIGHT }}
    >
      <Link href={`/jobs/${job.id}`} style={{ color: "inherit" }}>
        {machine.name}
      </Link>{" "}
      {job.number} · {job.complaint}
    </Box>
  );
}

/** About what a row with its tape line takes. */
const ROW_HEIGHT = 128;

function FloorJob({ records }: { records: JobRecords }) {
  const { job, machine } = records;
  const plan = goesOn(records);
  const waits = job.finishedAt ? null : waitsFor(plan);
  return (
    <Box
      component="article"
      aria-label={`Job ${job.number}, ${machine.name}`}
      sx={{ borderTop: 1, borderColor: "divider", pt: 0.75, pb: 0.75 }}
    >
      <Box sx={{ display: "flex", gap: 1.5, alignItems: "baseline" }}>
        <Box
          component={Link}
          href={`/jobs/${job.id}`}
          sx={{
            fontSize: 17.5,
            fontWeight: 700,
            color: "text.primary",
            textDecoration: "none",
            "&:hover": { textDecoration: "underline" },
            py: 0.75,
          }}
        >
          {machine.name}
        </Box>
        <Box
          sx={{
            color: "text.secondary",
            overflow: "hidden",
            textOverflow: "ellipsis",
            whiteSpace: "nowrap",
            minWidth: 0,
            flex: 1,
          }}
        >
          {job.number} · {job.complaint || "no complaint written down"}
        </Box>
        {job.wantedBy && !job.finishedAt && (
          <Box
            sx={{
              color: job.wantedBy < today() ? "error.main" : "text.secondary",
              fontWeight: job.wantedBy < today() ? 650 : 400,
              whiteSpace: "nowrap",
            }}
          >
            wanted by {shortDay(job.wantedBy)}
          </Box>
        )}
        <Box
          sx={{
            color: waits ? "warning.main" : "text.secondary",
            fontWeight: waits ? 650 : 400,
            whiteSpace: "nowrap",
          }}
        >
          {waits ?? jobStatus(records, plan)}
        </Box>
      </Box>
      <JobTapeLine records={records} />
    </Box>
  );
}

/** The parts that a job waits for; null where it waits for none. */
function waitsFor({ waits }: GoesOn): string | null {
  const parts = waits.flatMap((one) => one.parts);
  if (parts.length === 0) return null;
  return `waiting: ${partName(parts[0])}${parts.length > 1 ? ` and ${parts.length - 1} more` : ""}`;
}

function jobStatus(records: JobRecords, plan: GoesOn): string {
  const { job, readings } = records;
  if (job.finishedAt) return "finished";
  const again = toRepeat(records);
  if (again.length > 0) return `${again.length} to repeat`;
  if (readings.length === 0 && Object.keys(job.done).length === 0) return "just in";
  return `at ${placeOfWork(records, plan).name.toLowerCase()}`;
}

function EmptyFloor({ onTrouble }: { onTrouble: (text: string) => void }) {
  return (
    <Box sx={{ py: 10, textAlign: "center" }}>
      <Typography sx={{ fontSize: 26, fontWeight: 700 }}>No machine on the bench yet.</Typography>
      <Typography sx={{ color: "text.secondary", my: 2, fontSize: 17 }}>
        Begin with a job: the machine and what its owner says is wrong.
      </Typography>
      <Button variant="contained" component={Link} href="/jobs/new" sx={{ mr: 2 }}>
        New job
      </Button>
      <Button
        variant="outlined"
        onClick={() => loadDemoWorkshop().catch((error: Error) => onTrouble(error.message))}
      >
        Load the demo workshop
      </Button>
    </Box>
  );
}
