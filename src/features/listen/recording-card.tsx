"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import MenuItem from "@mui/material/MenuItem";
import Paper from "@mui/material/Paper";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { dropOutRates } from "@/core/measure/drop-out-rates";
import { fixed, THIN_SPACE } from "@/core/text/number-text";
import type { RecordingReport } from "@/core/recordings/measure-recording";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { DropOutTable } from "@/ui/drop-out-table";
import { READING_FONT } from "@/ui/theme";
import { AttachDialog } from "./attach-dialog";
import { PlaybackReport } from "./playback-report";
import { StretchDoubts, StretchTable } from "./stretch-table";
import type { HeardFile } from "./use-recordings";

interface RecordingCardProps {
  heard: HeardFile;
  tapes: ReferenceTape[];
  onTape(id: string): void;
  onCancel(): void;
  onRemove(): void;
}

/** One recording: its levels, what was recognised in it, and what was measured there. */
export function RecordingCard({ heard, tapes, onTape, onCancel, onRemove }: RecordingCardProps) {
  const { file, state } = heard;
  const [attaching, setAttaching] = useState(false);
  const report = state.kind === "done" ? state.report : null;
  // what a sequence was recorded by is not known: it tells nothing of the speed of a machine
  const attachable =
    report !== null && report.by.kind !== "sequence" && report.stretches.some(({ speed }) => speed !== null);
  return (
    <Paper
      component="article"
      aria-label={file.name}
      elevation={0}
      sx={{ border: 1, borderColor: "divider", p: 2, mb: 2 }}
    >
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap" }}>
        <Box component="h2" sx={{ fontSize: 18, m: 0, overflowWrap: "anywhere" }}>
          {file.name}
        </Box>
        <Box sx={{ color: "text.secondary", flex: 1 }}>{report && lengthOf(report)}</Box>
        {report && (
          <TextField
            select
            size="small"
            label="Tape"
            value={tapes.some(({ id }) => id === heard.tapeId) ? heard.tapeId : ""}
            onChange={(event) => onTape(event.target.value)}
            sx={{ width: 240 }}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          >
            <MenuItem value="">not known</MenuItem>
            {tapes.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        )}
        {attachable && (
          <Button variant="contained" onClick={() => setAttaching(true)}>
            Attach to a job
          </Button>
        )}
        {(state.kind === "measuring" || state.kind === "waiting") && (
          <Button onClick={onCancel}>Cancel</Button>
        )}
        <Button color="inherit" onClick={onRemove}>
          Put away
        </Button>
      </Box>
      {state.kind === "waiting" && <Box sx={{ color: "text.secondary" }}>Waits for the one before.</Box>}
      {state.kind === "cancelled" && <Box sx={{ color: "text.secondary" }}>Cancelled; nothing was kept.</Box>}
      {state.kind === "measuring" && (
        <LinearProgress
          variant="determinate"
          value={100 * state.share}
          aria-label={`Measuring ${file.name}`}
          sx={{ mt: 1.5 }}
        />
      )}
      {state.kind === "refused" && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {state.why}
        </Alert>
      )}
      {report && <Report report={report} />}
      {report && (
        <AttachDialog
          open={attaching}
          fileName={file.name}
          report={report}
          tapes={tapes}
          onClose={() => setAttaching(false)}
        />
      )}
    </Paper>
  );
}

function Report({ report }: { report: RecordingReport }) {
  const { by, stretches, channels, warnings } = report;
  return (
    <>
      {warnings.map((warning) => (
        <Alert key={warning} severity="warning" sx={{ mt: 1 }}>
          {warning}
        </Alert>
      ))}
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          columnGap: 4,
          rowGap: 0.5,
          my: 1.5,
          fontFamily: READING_FONT,
          fontSize: 15,
        }}
      >
        {channels.map((channel) => (
          <Box key={channel.channel}>
            <Box component="b" sx={{ fontFamily: "inherit" }}>
              {channel.channel}
            </Box>{" "}
            peak {fixed(channel.truePeakDbfs, 1)}
            {THIN_SPACE}dBTP, RMS {fixed(channel.rmsDbfs, 1)}
            {THIN_SPACE}dBFS
            {channel.clippedSamples > 0 && `, clipped ${channel.clippedSamples} samples`}
            {Math.abs(channel.dcPercent) > 0.1 && `, DC ${fixed(channel.dcPercent, 1)}${THIN_SPACE}%`}
            {channel.hum.mainsHz !== null && `, ${humText(channel.hum)}`}
          </Box>
        ))}
      </Box>
      <Box sx={{ fontWeight: 650, mb: 0.5 }}>
        {stretches.length === 0
          ? by.kind === "tape"
            ? `No band of ${by.name} was heard.`
            : "No steady tone was heard: music, speech or noise has levels only."
          : by.kind === "tones"
            ? "Steady tones"
            : `${by.kind === "tape" ? "Bands of" : "Segments of the sequence"} ${by.name}`}
      </Box>
      {stretches.length > 0 && <StretchTable stretches={stretches} counted={by.kind !== "tones"} />}
      <StretchDoubts stretches={stretches} counted={by.kind !== "tones"} />
      <DropOutsHeard stretches={stretches} />
      {report.playback && <PlaybackReport playback={report.playback} />}
    </>
  );
}

/** Of the longest tone in which they could be counted. */
function DropOutsHeard({ stretches }: Pick<RecordingReport, "stretches">) {
  const longest = stretches
    .filter(({ dropOuts }) => dropOuts !== null)
    .toSorted((a, b) => b.endSeconds - b.startSeconds - (a.endSeconds - a.startSeconds))
    .at(0);
  const rates = longest?.dropOuts && dropOutRates(longest.dropOuts);
  if (!longest?.dropOuts || !rates) return null;
  const seconds = Math.min(...longest.dropOuts.map((one) => one.seconds));
  const where = `${Math.round(seconds)} s of ${longest.what}`;
  if (longest.dropOuts.every(({ events }) => events.length === 0))
    return <Box sx={{ mt: 1.5 }}>No drop-out of 6 dB or more in {where}.</Box>;
  const says = `Of 6 dB and more, in ${where}.${seconds < SURE_SECONDS ? " A minute or more tells a rate better." : ""} Play the same stretch twice: what comes back at the same places is the tape's own.`;
  return (
    <Box sx={{ mt: 1.5 }}>
      <DropOutTable {...{ rates, says }} />
    </Box>
  );
}
const SURE_SECONDS = 60;

const humText = ({ mainsHz, lines }: RecordingReport["channels"][number]["hum"]) =>
  `${mainsHz} Hz hum ${fixed(Math.max(...lines.map(({ levelDb }) => levelDb)), 0)}${THIN_SPACE}dBFS`;

const lengthOf = ({ durationSeconds, sampleRateHz, channels }: RecordingReport) =>
  `${Math.floor(durationSeconds / 60)}:${String(Math.floor(durationSeconds % 60)).padStart(2, "0")}, ${sampleRateHz} Hz, ${channels.length === 1 ? "mono" : `${channels.length} channels`}`;
