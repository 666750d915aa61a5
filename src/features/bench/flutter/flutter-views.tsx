"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { useLiveQuery } from "dexie-react-hooks";
import { useMemo, useState } from "react";
import { compareRuns } from "@/core/advice/compare-runs";
import { explainTransport, NOTHING_KNOWN } from "@/core/advice/explain-transport";
import type { PlaceOnTape } from "@/core/alignment/six-places";
import type { Circumstances } from "@/core/records/reading";
import { flutterLimit } from "@/core/stations/flutter";
import { speedLimit } from "@/core/stations/speed";
import type { TransportView } from "@/core/advice/transport-view";
import type { RatePoint } from "@/core/measure/rate-points";
import type { FlutterResult } from "@/core/measure/flutter";
import { database } from "@/storage/database";
import { newId } from "@/storage/jobs";
import { keepRun } from "@/storage/runs";
import type { JobView } from "@/features/job/use-job-records";
import { FlutterPanel } from "./meters-and-spectrum";
import { Waveform } from "@/ui/waveform";
import { marksOf, PartsPicture } from "./parts-picture";
import type { ListenerState } from "../listening/use-listener";
import { SixPlaces } from "./six-places";
import { Tick } from "./tick";
import { WatchPanel } from "./watch-panel";

const VIEWS = ["parts", "waveform", "spectrum and meters", "tick", "watch"] as const;
export type View = (typeof VIEWS)[number];

interface FlutterViewsProps {
  shown: View;
  onShow(view: View): void;
  view: JobView;
  flutter: FlutterResult | null;
  listener: ListenerState;
  failing: boolean;
  circumstances: Circumstances;
  /** A place of the tape is played from now on. */
  onPlace(place: Pick<PlaceOnTape, "side" | "position">): void;
  /** Whether a tick is listened for. */
  onHearsTick(hears: boolean): void;
}

/** What lies behind the flutter figure: the guilty part, the spectrum with all meters, or the whole run. */
export function FlutterViews({
  shown,
  onShow,
  view,
  flutter,
  listener,
  failing,
  circumstances,
  onPlace,
  onHearsTick,
}: FlutterViewsProps) {
  const { job, machine } = view;
  const { transport } = listener;
  const runs = useLiveQuery(() => database.runs.where("jobId").equals(job.id).toArray(), [job.id]) ?? [];
  const [against, setAgainst] = useState("");
  const before = runs.find(({ id }) => id === against);
  const flutterLimitPercent = flutterLimit(machine);
  // the parts are found anew every few seconds; the readings come ten times in one
  const explanations = useMemo(
    () =>
      transport === null
        ? []
        : explainTransport({
            ...NOTHING_KNOWN,
            finding: transport.finding,
            events: transport.events,
            watchedSeconds: transport.seconds,
            // without a limit nothing is too much
            flutterLimitPercent: flutterLimitPercent ?? NOTHING_KNOWN.flutterLimitPercent,
          }),
    [transport, flutterLimitPercent],
  );
  const changes = useMemo(
    () => (before && transport ? compareRuns(before, transport.finding) : null),
    [before, transport],
  );
  const marks = useMemo(() => (transport ? marksOf(transport.finding) : []), [transport]);
  return (
    <Box>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap", mb: 0.75 }}>
        <ToggleButtonGroup
          exclusive
          aria-label="View"
          value={shown}
          onChange={(_, chosen: View | null) => {
            if (!chosen) return;
            onShow(chosen);
            onHearsTick(chosen === "tick");
          }}
        >
          {VIEWS.map((name) => (
            <ToggleButton key={name} value={name} sx={{ minHeight: 44, textTransform: "none", px: 1.5 }}>
              {name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Box sx={{ flex: 1 }} />
        {shown === "parts" && transport && (
          <Button
            color="inherit"
            variant="outlined"
            onClick={() => void keepRun(runOf(transport, job.id, `run ${runs.length + 1}`))}
          >
            Keep this run
          </Button>
        )}
        {shown === "parts" && runs.length > 0 && (
          <TextField
            select
            size="small"
            label="Against"
            value={before ? against : ""}
            onChange={({ target }) => setAgainst(target.value)}
            sx={{ minWidth: 112 }}
          >
            <MenuItem value="">nothing</MenuItem>
            {runs.map(({ id, label }) => (
              <MenuItem key={id} value={id}>
                {label}
              </MenuItem>
            ))}
          </TextField>
        )}
      </Box>
      {shown === "parts" &&
        (transport ? (
          <PartsPicture
            finding={transport.finding}
            explanations={explanations}
            changes={changes}
            machineHasParts={machine.parts.length > 0}
            failing={failing}
          />
        ) : (
          <Box sx={{ color: "text.secondary", fontSize: 18, py: 2 }}>
            {listener.live
              ? "Listening for the parts that turn; some eight seconds."
              : "No tone has been heard yet."}
          </Box>
        ))}
      {shown === "waveform" && <DeviationOverTime listener={listener} />}
      {shown === "spectrum and meters" && flutter && (
        <FlutterPanel
          flutter={flutter}
          points={transport?.finding.spectrum ?? NO_POINTS}
          meter={machine.flutterMeter}
          marks={marks}
        />
      )}
      {shown === "tick" && <Tick view={view} listener={listener} />}
      {shown === "watch" && (
        <>
          <SixPlaces view={view} circumstances={circumstances} onChoose={onPlace} />
          <WatchPanel
            jobId={job.id}
            listener={listener}
            speedLimitPercent={speedLimit(machine)}
            flutterLimitPercent={flutterLimitPercent}
          />
        </>
      )}
    </Box>
  );
}

/** The flutter itself: of a live source the last seconds, of a file those in which it deviates most. */
function DeviationOverTime({ listener: { live, transport } }: { listener: ListenerState }) {
  const waveform = live ? live.waveform : (transport?.waveform ?? null);
  if (waveform === null || waveform.percent.length < 2)
    return <Box sx={{ color: "text.secondary", fontSize: 18, py: 2 }}>No tone has been heard yet.</Box>;
  const { startSeconds, rateHz, percent } = waveform;
  const seconds = percent.length / rateHz;
  return (
    <Waveform
      label={`Deviation of the speed over ${seconds.toFixed(0)} seconds`}
      waveform={waveform}
      ends={
        live
          ? [`${seconds.toFixed(0)} s ago`, "now"]
          : [`${startSeconds.toFixed(1)} s`, `${(startSeconds + seconds).toFixed(1)} s in the file`]
      }
    />
  );
}

const NO_POINTS: RatePoint[] = [];

/** What of a run is kept to compare a later one with. */
const runOf = ({ finding, seconds }: TransportView, jobId: string, label: string) => ({
  id: newId(),
  jobId,
  at: new Date().toISOString(),
  label,
  seconds,
  totalRmsPercent: finding.totalRmsPercent,
  parts: finding.parts.map(({ part, role, rateHz, peakPercent, sharePercent, certainty }) => ({
    part,
    role,
    rateHz,
    peakPercent,
    sharePercent,
    certainty,
  })),
});
