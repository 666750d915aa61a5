"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import TextField from "@mui/material/TextField";
import { Link } from "@/ui/link";
import { useCallback } from "react";
import { baselineOf } from "@/core/alignment/baseline";
import { askedBy, MEANINGS, SYMPTOMS, type Symptom } from "@/core/workshop/symptoms";
import { changeJob, changeSymptoms } from "@/storage/jobs";
import { Card } from "@/ui/card";
import { PressButton } from "@/ui/press-button";
import type { ChecklistProps } from "../bench/checklist";
import { stationHref } from "../job/job-tape-line";
import type { JobView } from "../job/use-job-records";
import { useKeptText } from "../job/use-kept-text";
import { DeskColumns } from "./desk-columns";
import { PicturesCard } from "./pictures-card";
import { TicksCard } from "./ticks-card";

/** Intake: what the owner says, what that means, and what to do before anything is opened. */
export const IntakeDesk = (props: ChecklistProps) => (
  <DeskColumns middle={<Complaint view={props.view} onPass={props.onPass} />} asideName="Intake and pictures">
    <PicturesCard
      jobId={props.view.job.id}
      of="pictures"
      ids={props.view.job.pictures ?? []}
      title="As it came in"
      none="No picture of it yet"
      shows="the machine as it came in"
    />
    <ComesAndGoes view={props.view} />
    <TicksCard {...props} />
  </DeskColumns>
);

function Complaint({ view, onPass }: Pick<ChecklistProps, "view" | "onPass">) {
  const { job } = view;
  const symptoms = job.symptoms ?? [];
  const asked = askedBy(symptoms);
  const complaint = useKeptText(
    `complaint-${job.id}`,
    job.complaint,
    useCallback((text: string) => changeJob(job.id, { complaint: text }), [job.id]),
  );
  const toggle = (one: Symptom) =>
    void changeSymptoms(job.id, (now) =>
      now.includes(one) ? now.filter((other) => other !== one) : [...now, one],
    );
  return (
    <Paper
      component="section"
      aria-label="Complaint"
      tabIndex={0}
      elevation={0}
      sx={{ border: 1, borderColor: "divider", px: 2, py: 1.25, minHeight: 0 }}
    >
      <TextField
        fullWidth
        multiline
        margin="dense"
        label="In the owner's words"
        {...complaint}
        slotProps={{ input: { sx: { fontSize: 22, lineHeight: 1.3 } }, inputLabel: { shrink: true } }}
      />
      <Box
        role="group"
        aria-label="What it means"
        sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, mt: 1 }}
      >
        {SYMPTOMS.map((one) => (
          <PressButton key={one} chosen={symptoms.includes(one)} onClick={() => toggle(one)}>
            {MEANINGS[one].says}
          </PressButton>
        ))}
      </Box>
      {symptoms.length === 0 ? (
        <Box sx={{ mt: 2, fontSize: 19, fontWeight: 650 }}>
          Press what it means: then it is said here what to look at before power, what to try first, and what
          to measure before anything is opened.
        </Box>
      ) : (
        <Box
          component="ol"
          aria-label="Before anything is opened"
          sx={{ listStyle: "none", p: 0, m: 0, mt: 1.5 }}
        >
          <Step
            number={1}
            title="Before power"
            lines={asked.beforePower}
            none="Nothing speaks against power. Look and smell all the same."
          />
          <Step number={2} title="Hear it for yourself" lines={asked.reproduce} />
          <Step number={3} title="What costs nothing" lines={asked.cheapFirst} />
        </Box>
      )}
      <BaselineRow view={view} onPass={onPass} />
    </Paper>
  );
}

function Step({
  number,
  title,
  lines,
  none,
}: {
  number: number;
  title: string;
  lines: string[];
  none?: string;
}) {
  return (
    <Box component="li" sx={{ display: "flex", gap: 1.5, py: 0.75, borderTop: 1, borderColor: "divider" }}>
      <Box
        sx={{ fontSize: 34, fontWeight: 750, lineHeight: 1, color: "primary.main", width: 28, flexShrink: 0 }}
      >
        {number}
      </Box>
      <Box>
        <Box sx={{ fontSize: 20, fontWeight: 700 }}>{title}</Box>
        {lines.map((line) => (
          <Box key={line} sx={{ fontSize: 17, lineHeight: 1.35, mt: 0.25 }}>
            {line}
          </Box>
        ))}
        {lines.length === 0 && none && <Box sx={{ fontSize: 17, color: "text.secondary" }}>{none}</Box>}
      </Box>
    </Box>
  );
}

/** What is measured as found now, as links to where it is. */
function BaselineRow({ view, onPass }: Pick<ChecklistProps, "view" | "onPass">) {
  const { stations, leftOut } = baselineOf(view);
  return (
    <Box
      component="section"
      aria-label="As found, before anything is opened"
      sx={{ borderTop: 1, borderColor: "divider", pt: 1, mt: 0.75 }}
    >
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <Box
          sx={{
            fontSize: 34,
            fontWeight: 750,
            lineHeight: 1,
            color: "primary.main",
            width: 28,
            flexShrink: 0,
          }}
        >
          4
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <Box sx={{ fontSize: 20, fontWeight: 700 }}>Measure as found</Box>
          {askedBy(view.job.symptoms ?? []).minds.map((line) => (
            <Box key={line} sx={{ color: "warning.main", fontWeight: 600, mt: 0.5 }}>
              {line}
            </Box>
          ))}
          <Box sx={{ display: "flex", gap: 0.75, flexWrap: "wrap", mt: 0.5 }}>
            <Button variant="contained" onClick={onPass}>
              All in one pass of a tape
            </Button>
            {stations.map(({ station, taken }) => (
              <Button
                key={station.id}
                component={Link}
                href={stationHref(view.job.id, station)}
                variant={taken ? "text" : "outlined"}
                color={taken ? "success" : "primary"}
              >
                {station.name}
                {taken ? ": taken" : ""}
              </Button>
            ))}
          </Box>
          {leftOut.length > 0 && (
            <Box sx={{ color: "warning.main", fontWeight: 600, mt: 0.5 }}>
              The route of this job leaves out {leftOut.map(({ name }) => name.toLowerCase()).join(", ")}: put
              it back on the job&apos;s page.
            </Box>
          )}
        </Box>
      </Box>
    </Box>
  );
}

function ComesAndGoes({ view: { job } }: { view: JobView }) {
  const cameWith = useKeptText(
    `came-with-${job.id}`,
    job.cameWith ?? "",
    useCallback((text: string) => changeJob(job.id, { cameWith: text.slice(0, 2000) }), [job.id]),
  );
  const contact = useKeptText(
    `contact-${job.id}`,
    job.contact ?? "",
    useCallback((text: string) => changeJob(job.id, { contact: text.slice(0, 500) }), [job.id]),
  );
  return (
    <Card title="Comes with, goes to">
      <TextField size="small" fullWidth multiline margin="dense" label="What came with it" {...cameWith} />
      <TextField size="small" fullWidth margin="dense" label="Who to call" {...contact} />
      <TextField
        size="small"
        fullWidth
        margin="dense"
        type="date"
        label="Wanted by"
        value={job.wantedBy ?? ""}
        onChange={({ target }) => void changeJob(job.id, { wantedBy: target.value || null })}
        slotProps={{ inputLabel: { shrink: true } }}
      />
    </Card>
  );
}
