"use client";
import Box from "@mui/material/Box";
import Paper from "@mui/material/Paper";
import { useMemo } from "react";
import { base } from "@/core/alignment/log-reading";
import { azimuthByPhase } from "@/core/alignment/limits";
import { screwLevels } from "@/core/alignment/loudest-point";
import type { Circumstances } from "@/core/alignment/records";
import type { Station } from "@/core/alignment/stations";
import { appendReadings, newId } from "@/storage/jobs";
import type { JobView } from "@/features/job/use-job-records";
import type { ListenerState } from "../use-listener";
import { AzimuthPanel } from "./azimuth-panel";
import { LevelPanel } from "./level-panel";
import { bandsForResponse, type PlaybackNumbers } from "@/core/alignment/playback-numbers";
import type { ResponseSource } from "@/core/listen/response-runs";
import { isWide } from "@/core/listen/wide-band";
import { ResponsePanel } from "./response-panel";
import type { PlaybackToTurn } from "./use-playback-turns";

interface PlaybackPanelProps {
  view: JobView;
  station: Station;
  numbers: PlaybackNumbers | null;
  listener: ListenerState;
  circumstances: Circumstances;
  toTurn: PlaybackToTurn;
  /** Chooses what the response is read from. */
  onReadFrom(source: ResponseSource): void;
}

/** The middle of the bench at azimuth, level and response. */
export function PlaybackPanel({
  view,
  station,
  numbers,
  listener,
  circumstances,
  toTurn,
  onReadFrom,
}: PlaybackPanelProps) {
  const { side } = circumstances;
  const absent = absence(listener, station, view);
  const { adjuster, peak, turns } = toTurn;
  const levels = useMemo(
    () => (adjuster ? screwLevels(view.readings, view.adjustments, adjuster.id) : []),
    [view.readings, view.adjustments, adjuster],
  );
  const sinceLast = listener.kind === "practice" ? turns : 0;
  const logMeter = (channel: string, value: number, uncertainty: number) =>
    void appendReadings([
      {
        ...base(
          {
            newId,
            jobId: view.job.id,
            channel,
            tapeId: view.tape.id,
            tapeUncertaintyPercent: 0,
            nominalHz: numbers?.level?.numbers.frequencyHz ?? 0,
            speedCmPerS: view.job.speedCmPerS,
            phase: "working",
            at: new Date().toISOString(),
            source: { kind: "by hand", name: "the machine's own meter" },
            circumstances,
          },
          "level",
          "level.meter",
          0,
        ),
        value,
        uncertainty,
        ownUncertainty: uncertainty,
        method: "the machine's meter re its 0, less the measured level error",
      },
    ]);
  return (
    <Paper
      component="section"
      aria-label={station.name}
      tabIndex={0}
      elevation={0}
      sx={{
        position: "relative",
        border: 1,
        borderColor: "divider",
        px: 2,
        py: 1.25,
        minHeight: 0,
        display: "flex",
        flexDirection: "column",
        gap: 1,
        "& > *": { flexShrink: 0 },
      }}
    >
      <TapeLacks view={view} station={station} />
      {station.id === "azimuth" && (
        <AzimuthPanel
          view={view}
          numbers={numbers}
          absent={absent}
          search={
            azimuthByPhase(view.machine)
              ? null
              : {
                  peak,
                  levels,
                  turns: (levels.at(-1)?.turns ?? 0) + sinceLast,
                  onClear: listener.clearHold,
                }
          }
        />
      )}
      {station.id === "level" && (
        <LevelPanel view={view} numbers={numbers} side={side} absent={absent} onMeter={logMeter} />
      )}
      {station.id === "response" && (
        <ResponsePanel
          view={view}
          numbers={numbers}
          listener={listener}
          side={side}
          absent={absent}
          onReadFrom={onReadFrom}
        />
      )}
    </Paper>
  );
}

const LEAST_TREBLE_HZ = 4000;

/** What the tape in the machine cannot tell at this station. */
function TapeLacks({ view: { tape, machine }, station }: Pick<PlaybackPanelProps, "view" | "station">) {
  const tones = tape.bands.filter(({ kind }) => kind === "tone");
  const highest = Math.max(0, ...tones.map(({ frequencyHz }) => frequencyHz));
  const lacks =
    station.id === "azimuth" && highest < LEAST_TREBLE_HZ
      ? "has no tone above 4 kHz: azimuth cannot be set by it"
      : station.id === "azimuth" && azimuthByPhase(machine) && tones.length < 2
        ? "has a single tone: whole cycles cannot be counted"
        : station.id === "level" && tape.fluxivityNwbPerM === undefined
          ? "has no reference fluxivity written down: only the balance can be judged"
          : station.id === "response" && bandsForResponse(tape.bands).length < 4 && !tape.bands.some(isWide)
            ? "has too few bands for a response"
            : null;
  return lacks ? (
    <Box sx={{ color: "warning.main", fontWeight: 600 }}>
      {tape.name} {lacks}. Choose another tape on the left.
    </Box>
  ) : null;
}

function absence({ kind, progress, measured }: ListenerState, station: Station, { tape }: JobView): string {
  if (progress !== null) return `Measuring the file, ${Math.round(100 * progress)} %`;
  if (kind === null) return "Start a source below, or drop a recording here";
  if (kind === "file") return measured?.problems[0] ?? `Nothing of ${tape.name} in this file`;
  return station.id === "level" ? "Play the level band" : "Play the tape from its first tone";
}
