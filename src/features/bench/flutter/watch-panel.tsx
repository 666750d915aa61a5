"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { longRunOf, type Went } from "@/core/advice/long-run";
import { csvText } from "@/core/formats/csv-text";
import { memo, useMemo } from "react";
import { useLiveQuery } from "dexie-react-hooks";
import type { TransportEvent } from "@/core/measure/transport-events";
import { warmUpOf } from "@/core/measure/warm-up";
import { SPECTRA_HZ, type WatchTrack } from "@/core/measure/watch-log";
import { fixed } from "@/core/text/number-text";
import { database } from "@/storage/database";
import { newId } from "@/storage/jobs";
import { deleteWatch, keepWatch } from "@/storage/runs";
import { READING_FONT } from "@/ui/theme";
import { Spectrogram } from "@/ui/spectrogram";
import { WatchChart } from "@/ui/watch-chart";
import { download } from "@/features/job/download";
import type { ListenerState } from "../listening/use-listener";
import { useWatchedPlay } from "./use-watched-play";

interface WatchPanelProps {
  jobId: string;
  listener: ListenerState;
  speedLimitPercent: number;
  flutterLimitPercent: number | null;
}

const MOST_LISTED = 40;

/** A long run, watched: speed and flutter from start to now, and what happened when. */
export function WatchPanel({ jobId, listener, speedLimitPercent, flutterLimitPercent }: WatchPanelProps) {
  const { watch, watching, hears } = listener;
  const kept = useLiveQuery(() => database.watches.where("jobId").equals(jobId).toArray(), [jobId]) ?? [];
  const shown = watch ?? kept.at(-1) ?? null;
  const warmth = useMemo(() => advice(watch, speedLimitPercent), [watch, speedLimitPercent]);
  const play = useWatchedPlay(jobId, listener);
  const stop = async () => {
    if (watch && watch.speedPercent.length > 4)
      await keepWatch({
        ...watch,
        id: newId(),
        jobId,
        at: new Date().toISOString(),
        label: listener.tapeName,
      });
    listener.stopWatch();
    await play.forget();
  };
  return (
    <Box role="region" aria-label="Watching a long run">
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", minHeight: 48 }}>
        {watching ? (
          <Button variant="contained" onClick={() => void stop()}>
            Stop and keep this run
          </Button>
        ) : (
          <>
            {play.before && (
              <Button variant="contained" disabled={!hears} onClick={play.goOn}>
                Go on with the run from before (
                {clock(play.before.track.stepSeconds * play.before.track.speedPercent.length)})
              </Button>
            )}
            <Button variant="outlined" disabled={!hears} onClick={() => listener.startWatch()}>
              Watch from now on
            </Button>
          </>
        )}
        <Box sx={{ color: "text.secondary", flex: 1, lineHeight: 1.3 }}>
          {watching ? warmth : hears ? "A whole side fits; leave it running." : "Start a source to watch it."}
        </Box>
        {shown && (
          <Button color="inherit" onClick={() => download("watched-run.csv", csvOf(shown), "text/csv")}>
            CSV
          </Button>
        )}
        {!watching && kept.length > 0 && (
          <Button color="inherit" onClick={() => void deleteWatch(kept[kept.length - 1].id)}>
            Delete
          </Button>
        )}
      </Box>
      {shown && (
        <WatchedRun track={shown} speedLimit={speedLimitPercent} flutterLimit={flutterLimitPercent} />
      )}
    </Box>
  );
}

const WENT: Record<Went["what"], string> = {
  speed: "Speed left its limit",
  level: "The level fell by 3 dB",
  flutter: "Flutter left its limit",
};

interface WatchedRunProps {
  track: WatchTrack;
  speedLimit: number;
  flutterLimit: number | null;
}

/** The run so far; drawn anew when there is more of it, not with each reading. */
const WatchedRun = memo(function WatchedRun({ track, speedLimit, flutterLimit }: WatchedRunProps) {
  const { stepSeconds, startSeconds, speedPercent, flutterPercent, events, spectra } = track;
  const { went, missedSeconds, heardSeconds, speeds } = longRunOf(track, speedLimit, flutterLimit);
  return (
    <>
      <Box role="status" aria-label="The run" sx={{ fontWeight: 600, lineHeight: 1.35, mb: 0.5 }}>
        {went.length === 0
          ? `Nothing went in ${clock(heardSeconds)} of tone.`
          : went.map(({ what, atSeconds }) => `${WENT[what]} at ${clock(atSeconds)}.`).join(" ")}
        {missedSeconds > 0 && ` ${clock(missedSeconds)} of it nobody heard.`}
        {speeds.every((one) => one !== null) &&
          ` Speed at start, middle and end: ${speeds.map((one) => fixed(one!, 2, true)).join(", ")} %.`}
      </Box>
      <Box sx={{ lineHeight: 0 }}>
        <WatchChart
          label="speed error, %"
          stepSeconds={stepSeconds}
          values={speedPercent}
          window={{ from: -speedLimit, to: speedLimit }}
          marks={events.map(({ atSeconds }) => atSeconds - startSeconds)}
          height={104}
        />
        <WatchChart
          label="weighted peak flutter, %"
          stepSeconds={stepSeconds}
          values={flutterPercent}
          window={flutterLimit === null ? null : { from: 0, to: flutterLimit }}
          marks={[]}
          height={74}
        />
      </Box>
      {spectra.length > 1 && (
        <Spectrogram
          label="Rates over the run"
          rows={spectra}
          fromHz={SPECTRA_HZ.from}
          toHz={SPECTRA_HZ.to}
        />
      )}
      <Events events={events} startSeconds={startSeconds} />
    </>
  );
});

function Events({ events, startSeconds }: { events: TransportEvent[]; startSeconds: number }) {
  if (events.length === 0) return <Box sx={{ color: "text.secondary" }}>No slip, stall or tick so far.</Box>;
  return (
    <Box
      component="ol"
      aria-label="What happened"
      sx={{
        m: 0,
        p: 0,
        listStyle: "none",
        display: "flex",
        flexWrap: "wrap",
        columnGap: 2,
        fontFamily: READING_FONT,
        fontSize: 15,
      }}
    >
      {events.slice(-MOST_LISTED).map((event) => (
        <li key={`${event.kind}${event.atSeconds}`}>
          {clock(event.atSeconds - startSeconds)} {event.kind}
          {event.percent === null ? ` ${event.seconds.toFixed(1)} s` : ` ${fixed(event.percent, 1, true)} %`}
        </li>
      ))}
    </Box>
  );
}

const clock = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, "0")}`;

/** What the speed so far says about warming up. */
function advice(watch: WatchTrack | null, limitPercent: number): string {
  if (!watch) return "Watching…";
  const warmUp = warmUpOf(watch.speedPercent, watch.stepSeconds, 0.1 * limitPercent);
  if (warmUp === null) return `Watching, ${clock(watch.speedPercent.length * watch.stepSeconds)}.`;
  return warmUp.minutesToGo === 0
    ? "Warm: the speed has settled, begin."
    : `Still warming up: about ${Math.ceil(warmUp.minutesToGo)} min more, then it will be ${fixed(warmUp.endsAtPercent, 2, true)} %.`;
}

const csvOf = (
  track: Pick<WatchTrack, "stepSeconds" | "speedPercent" | "flutterPercent" | "levelDb">,
): string =>
  csvText(
    track.speedPercent.map((speedPercent, i) => ({
      seconds: i * track.stepSeconds,
      speedPercent,
      flutterPercent: track.flutterPercent[i],
      levelDbfs: track.levelDb[i],
    })),
  );
