import { useEffect, useRef } from "react";
import type { LogContext } from "@/core/alignment/log-reading";
import {
  inForce,
  type Adjuster,
  type Circumstances,
  type Phase,
  type Reading,
  type StationId,
} from "@/core/alignment/records";
import type { StationReadings } from "@/core/alignment/station-readings";
import { slotOf } from "@/core/machine/practice-slots";
import { frequencyUncertaintyOf } from "@/core/reference/reference-tape";
import { keepRecording, StorageFullError } from "@/storage/recordings";
import { appendAdjustment, appendReadings, newId } from "@/storage/jobs";
import type { JobView } from "../job/use-job-records";
import { nominalToneHz } from "./listener-provider";
import type { ListenerState } from "./use-listener";

/**
 * Writes readings and turns into the job. Around every turn a working reading is kept by itself, the last
 * steady one before and the first steady one after, because the turn card learns from the two.
 */
export function useLogbook(
  view: JobView,
  stationId: StationId,
  listener: ListenerState,
  station: StationReadings,
  circumstances: Circumstances = {},
) {
  /** The turn whose effect is still to be kept, and how many turns were told by then. */
  const awaiting = useRef<{ since: string; marks: number } | null>(null);
  const { measured } = listener;

  const context = (phase: Phase, at: string): LogContext => ({
    newId,
    jobId: view.job.id,
    channel: "both",
    tapeId: view.tape.id,
    tapeUncertaintyPercent: frequencyUncertaintyOf(view.tape),
    clockPercent: measured?.clockPercent,
    nominalHz: measured?.nominalHz ?? nominalToneHz(view),
    circumstances,
    speedCmPerS: view.job.speedCmPerS,
    phase,
    at,
    source: measured?.source ?? { kind: "by hand", name: "" },
  });

  /** Returns a sentence when nothing could be logged. */
  const log = async (phase: Phase): Promise<string | null> => {
    const at = new Date().toISOString();
    if (!measured) return "There is nothing to log yet: start a source first.";
    const readings = station.toLog(context(phase, at));
    return typeof readings === "string" ? readings : write(readings, phase, at);
  };

  /** Stores readings with the sound behind them. */
  const write = async (readings: Reading[], phase: Phase, at: string): Promise<string | null> => {
    awaiting.current = null;
    const evidence = await takeEvidence(phase, at);
    await appendReadings(readings.map((reading) => ({ ...reading, evidenceId: evidence.id })));
    return evidence.keep();
  };

  /**
   * The sound behind a reading, taken before anything else can change; `keep` stores it once the reading is safe, and
   * returns a sentence when there was no room.
   */
  const takeEvidence = async (phase: Phase, at: string) => {
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
          what: `${stationId === "flutter" ? "wow and flutter" : stationId}, ${phase}`,
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
    const before = station.beforeTurn(context("working", new Date(at - 1).toISOString()));
    if (!before || before.length === 0) return;
    const lastTurn = inForce(view.adjustments).at(-1)?.at ?? "";
    const quantities = before.map(({ quantity }) => quantity);
    const known = inForce(view.readings).some(
      (r) => r.at > lastTurn && r.station === stationId && quantities.includes(r.quantity),
    );
    if (!known) await appendReadings(before);
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
    const marks = await listener.markTurn(slotOf(adjuster, view.machine.adjusters));
    if (turns === null) await listener.repairPractice(adjuster.id);
    awaiting.current = { since: at, marks };
  };

  useEffect(() => {
    if (!measured || !awaiting.current || !view.adjustments.some((a) => a.at === awaiting.current?.since))
      return;
    // what was drawn before the turn was told may run its effects only now
    if ((listener.live?.marks ?? 0) < awaiting.current.marks) return;
    const at = new Date().toISOString();
    const shown = station.afterTurn(context("working", at));
    if (shown && shown.length > 0) void write(shown, "working", at);
  });

  return { log, logTurn };
}
