"use client";
import Box from "@mui/material/Box";
import Paper from "@mui/material/Paper";
import { limitFor } from "@/core/alignment/limits";
import { FLUTTER_SETTLED_SECONDS } from "@/core/measure/live-transport";
import { QUANTITIES } from "@/core/alignment/quantities";
import { decidingQuantity, readingsOf } from "@/core/alignment/station-state";
import type { Station } from "@/core/alignment/stations";
import { flutterUncertainty, speedUncertainty } from "@/core/alignment/uncertainty";
import { verdictOf, type Verdict } from "@/core/alignment/verdict";
import { decimalsFor, THIN_SPACE } from "@/core/formats/number-text";
import { Announcer } from "@/ui/announcer";
import { Readout } from "@/ui/readout";
import { Rule } from "@/ui/rule";
import { Strip } from "@/ui/strip";
import { VerdictMark } from "@/ui/verdict-mark";
import type { JobView } from "../job/use-job-records";
import { FlutterViews } from "./flutter-views";
import type { ListenerState } from "./use-listener";
import { frequencyUncertaintyOf } from "@/core/reference/reference-tape";
import type { Measured } from "./measured";

interface Shown {
  value: number;
  uncertainty: number;
  settled: boolean;
  seconds: number;
  channel: string;
}

/** The number that decides at this station, with the uncertainty it will be logged with. */
export function shownAt(station: Station, view: JobView, measured: Measured | null): Shown | null {
  if (station.id === "speed") {
    const speed = measured?.speed;
    if (!speed) return null;
    const uncertainty = speedUncertainty(
      speed.uncertaintyPercent,
      frequencyUncertaintyOf(view.tape),
      measured?.clockPercent,
    );
    return { ...speed, value: speed.errorPercent, uncertainty };
  }
  const flutter = measured?.flutter;
  if (!flutter) return null;
  const value = flutter.weighted[`${view.machine.flutterMeter}Percent`];
  return { ...flutter, value, uncertainty: flutterUncertainty(value) };
}

interface MeasurePanelProps {
  view: JobView;
  station: Station;
  listener: ListenerState;
  /** Speed error to aim at: nought, or this side's share of what the sides differ by. */
  targetPercent: number;
}

/** Number, rule and strip, or for flutter the meters and the spectrum. */
export function MeasurePanel({ view, station, listener, targetPercent }: MeasurePanelProps) {
  const { measured, live, kind, progress } = listener;
  const isSpeed = station.id === "speed";
  const quantity = decidingQuantity(station.id, view.machine);
  const limit = limitFor(view.machine, quantity);
  const shown = shownAt(station, view, measured);
  const verdict = shown && limit !== null ? verdictOf(shown.value, shown.uncertainty, limit) : null;
  const readings = readingsOf(view, station.id);
  const window = limit === null ? null : { from: isSpeed ? -limit : 0, to: limit };
  const strip = isSpeed ? listener.speedStrip : listener.flutterStrip;
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
        justifyContent: "space-between",
        gap: 0.25,
        "& > *": { flexShrink: 0 },
      }}
    >
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline", gap: 2 }}>
        <Box sx={{ fontWeight: 600, color: "text.secondary" }}>
          {QUANTITIES[quantity]}
          {shown && shown.channel && `, ${shown.channel === "both" ? "both channels" : shown.channel}`}
          {shown && !shown.settled && `, settling${isSpeed ? "" : secondsLeft(shown.seconds)}`}
        </Box>
        <Box sx={{ fontSize: 18 }}>
          {shown && limit !== null ? (
            <VerdictMark verdict={verdict} detail={detail(verdict, shown.value, limit, isSpeed)} />
          ) : (
            limit !== null && (
              <Box component="span" sx={{ color: "text.secondary" }}>
                limit {isSpeed && "±"}
                {limit}
                {THIN_SPACE}%
              </Box>
            )
          )}
        </Box>
      </Box>
      <Readout
        small={!isSpeed}
        name={QUANTITIES[quantity]}
        value={shown?.value ?? null}
        uncertainty={shown?.uncertainty ?? 0}
        decimals={isSpeed ? (shown && decimalsFor(shown.uncertainty) < 2 ? 1 : 2) : 3}
        signed={isSpeed}
        verdict={`${verdict ?? "no limit"}${shown && !shown.settled ? ", settling" : ""}`}
        absent={absence(kind, progress, measured, isSpeed)}
      />
      <Rule
        target={isSpeed ? targetPercent : 0}
        value={shown?.value ?? null}
        uncertainty={shown?.uncertainty ?? 0}
        window={window}
        asFound={readings.find(({ phase }) => phase === "as found")?.value ?? null}
        lastLogged={readings.at(-1)?.value ?? null}
        ends={isSpeed ? ["slow", "fast"] : ["steady", "restless"]}
        oneSided={!isSpeed}
      />
      {live && isSpeed && (
        <Strip
          label="Speed error over the last 90 seconds"
          points={strip}
          nowSeconds={live.seconds}
          marks={listener.marks}
          window={window}
        />
      )}
      {!isSpeed && (measured?.flutter || live) && (
        <FlutterViews
          view={view}
          flutter={measured?.flutter ?? null}
          listener={listener}
          failing={verdict === "fail"}
        />
      )}
      <Announcer words={shown?.settled && verdict ? `${QUANTITIES[quantity]}: ${verdict}` : ""} />
    </Paper>
  );
}

/** How long the meters still take. */
function secondsLeft(seconds: number): string {
  const left = Math.ceil(FLUTTER_SETTLED_SECONDS - seconds);
  return left > 0 ? `, ${left}${THIN_SPACE}s left` : "";
}

function detail(verdict: Verdict | null, value: number, limit: number, signed: boolean): string {
  const room = Math.abs(Math.abs(value) - limit).toFixed(2);
  const range = `${signed ? "±" : ""}${limit}${THIN_SPACE}%`;
  if (verdict === "fail") return `fail, ${room} outside ${range}`;
  if (verdict === "close") return `close to ${range}`;
  return `pass, within ${range}`;
}

function absence(
  kind: ListenerState["kind"],
  progress: number | null,
  measured: Measured | null,
  isSpeed: boolean,
): string {
  if (progress !== null) return `Measuring the file, ${Math.round(100 * progress)} %`;
  if (kind === null) return "Start a source below, or drop a WAV file here";
  if (measured && (isSpeed ? !measured.speed : !measured.flutter))
    return measured.problems[0] ?? (isSpeed ? "Waiting for the tone" : "Listening; a few seconds more");
  return "Listening…";
}
