import { useEffect, useRef } from "react";
import { flutterReadings, speedReading, type LogContext } from "@/core/alignment/log-reading";
import { inForce, type Adjuster, type Phase, type StationId } from "@/core/alignment/records";
import { readingsOf } from "@/core/alignment/station-state";
import { appendAdjustment, appendReadings, newId } from "@/storage/jobs";
import type { JobView } from "../job/use-job-records";
import type { ListenerState } from "./use-listener";
import type { Measured } from "./measured";

/**
 * Writes readings and turns into the job. Around every turn a working reading is kept by itself, the last
 * steady one before and the first steady one after, because the turn card learns from the two.
 */
export function useLogbook(view: JobView, stationId: StationId, nominalHz: number, listener: ListenerState) {
  const awaiting = useRef<{ since: string } | null>(null);
  const { measured, live } = listener;

  const context = (phase: Phase, channel: string, source: Measured["source"], at: string): LogContext => ({
    newId,
    jobId: view.job.id,
    channel,
    tapeId: view.tape.id,
    tapeUncertaintyPercent: view.tape.frequencyUncertaintyPercent,
    nominalHz,
    speedCmPerS: view.job.speedCmPerS,
    phase,
    at,
    source,
  });

  /** Returns a sentence when nothing could be logged. */
  const log = async (phase: Phase): Promise<string | null> => {
    const at = new Date().toISOString();
    if (!measured) return "There is nothing to log yet: start a source first.";
    if (stationId === "speed") {
      if (!measured.speed) return "There is no steady tone to log.";
      if (!measured.speed.settled) return "Still settling; log when the number is steady.";
      await appendReadings([
        speedReading(measured.speed, context(phase, measured.speed.channel, measured.source, at)),
      ]);
    } else {
      if (!measured.flutter) return "There is no steady tone to log.";
      if (!measured.flutter.settled) return "Flutter needs ten steady seconds before it is logged.";
      await appendReadings(
        flutterReadings(measured.flutter, context(phase, measured.flutter.channel, measured.source, at)),
      );
    }
    awaiting.current = null;
    return null;
  };

  const keepReadingBefore = async (at: number) => {
    if (stationId !== "speed" || !measured?.speed || !live?.speed) return;
    const lastTurn = inForce(view.adjustments).at(-1)?.at ?? "";
    const last = readingsOf(view, "speed").at(-1);
    if (last && last.at > lastTurn) return;
    const { beforeChange } = live.speed;
    const lastMark = listener.marks.at(-1) ?? -Infinity;
    const before = beforeChange && beforeChange.atSeconds > lastMark ? beforeChange : measured.speed;
    await appendReadings([
      speedReading(
        { ...before, seconds: measured.speed.seconds },
        context("working", measured.speed.channel, measured.source, new Date(at - 1).toISOString()),
      ),
    ]);
  };

  /** Logs that an adjuster was turned (clockwise positive), or that work was done (null). */
  const logTurn = async (adjuster: Adjuster, turns: number | null) => {
    const now = Date.now();
    await keepReadingBefore(now);
    const at = new Date(now).toISOString();
    await appendAdjustment({
      id: newId(),
      jobId: view.job.id,
      station: stationId,
      adjusterId: adjuster.id,
      turns,
      at,
      note: "",
      supersedes: null,
    });
    await listener.markTurn();
    awaiting.current = { since: at };
  };

  const settled = measured?.speed?.settled ?? false;
  const logRef = useRef(log);
  useEffect(() => {
    logRef.current = log;
  });
  useEffect(() => {
    if (
      stationId !== "speed" ||
      !settled ||
      !awaiting.current ||
      !view.adjustments.some((a) => a.at === awaiting.current?.since)
    )
      return;
    awaiting.current = null;
    void logRef.current("working");
  }, [stationId, settled, view.adjustments]);

  return { log, logTurn };
}
