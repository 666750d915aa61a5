import { useEffect, useRef } from "react";
import { flutterReadings, speedReading, type LogContext } from "@/core/alignment/log-reading";
import {
  inForce,
  type Adjuster,
  type Circumstances,
  type Phase,
  type StationId,
} from "@/core/alignment/records";
import { speedAdjusterIndex } from "@/core/alignment/job-speeds";
import { readingsOf } from "@/core/alignment/station-state";
import { frequencyUncertaintyOf } from "@/core/reference/reference-tape";
import { keepRecording, StorageFullError } from "@/storage/recordings";
import { appendAdjustment, appendReadings, newId } from "@/storage/jobs";
import type { JobView } from "../job/use-job-records";
import type { ListenerState } from "./use-listener";
import type { Measured } from "./measured";

/**
 * Writes readings and turns into the job. Around every turn a working reading is kept by itself, the last
 * steady one before and the first steady one after, because the turn card learns from the two.
 */
export function useLogbook(
  view: JobView,
  stationId: StationId,
  nominalHz: number,
  listener: ListenerState,
  circumstances: Circumstances = {},
) {
  const awaiting = useRef<{ since: string } | null>(null);
  const { measured, live } = listener;

  const context = (
    phase: Phase,
    channel: string,
    source: Measured["source"],
    at: string,
    evidenceId: string | null = null,
  ): LogContext => ({
    newId,
    jobId: view.job.id,
    channel,
    tapeId: view.tape.id,
    tapeUncertaintyPercent: frequencyUncertaintyOf(view.tape),
    clockPercent: measured?.clockPercent,
    nominalHz: measured?.nominalHz ?? nominalHz,
    evidenceId,
    circumstances,
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
      const evidence = await takeEvidence(phase, "speed", at);
      await appendReadings([
        speedReading(
          measured.speed,
          context(phase, measured.speed.channel, measured.source, at, evidence.id),
        ),
      ]);
      awaiting.current = null;
      return evidence.keep();
    } else {
      if (!measured.flutter) return "There is no steady tone to log.";
      if (!measured.flutter.settled) return "Flutter needs ten steady seconds before it is logged.";
      const evidence = await takeEvidence(phase, "wow and flutter", at);
      await appendReadings(
        flutterReadings(
          measured.flutter,
          context(phase, measured.flutter.channel, measured.source, at, evidence.id),
        ),
      );
      awaiting.current = null;
      return evidence.keep();
    }
  };

  /**
   * The sound behind a reading, taken before anything else can change; `keep` stores it once the reading is safe, and
   * returns a sentence when there was no room.
   */
  const takeEvidence = async (phase: Phase, what: string, at: string) => {
    const heard = await listener.evidence().catch(() => null);
    const id = heard ? newId() : null;
    const keep = async (): Promise<string | null> => {
      if (!heard || !id) return null;
      try {
        await keepRecording({
          id,
          jobId: view.job.id,
          at,
          seconds: heard.seconds,
          what: `${what}, ${phase}`,
          sound: new Blob([heard.wav as Uint8Array<ArrayBuffer>], { type: "audio/wav" }),
        });
        return null;
      } catch (error) {
        if (error instanceof StorageFullError) return error.message;
        return "The reading is logged, but its sound could not be kept in this browser's storage.";
      }
    };
    return { id, keep };
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
  const logTurn = async (adjuster: Adjuster, turns: number | null, atStop = false) => {
    const now = Date.now();
    await keepReadingBefore(now);
    const at = new Date(now).toISOString();
    await appendAdjustment({
      id: newId(),
      jobId: view.job.id,
      station: stationId,
      adjusterId: adjuster.id,
      turns,
      ...(atStop && { atStop }),
      at,
      note: "",
      supersedes: null,
    });
    const trimmer = speedAdjusterIndex(view.machine, adjuster.id);
    await listener.markTurn(trimmer < 0 ? null : trimmer);
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
