import { useEffect, useRef } from "react";
import {
  CLOSED_LOGBOOK,
  logStep,
  type Entries,
  type LogEvent,
  type Logbook,
  type Pen,
} from "@/core/alignment/logbook";
import type { Adjuster } from "@/core/records/machine";
import type { Phase } from "@/core/records/reading";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import type { MeasuringStation } from "@/core/stations/station";
import { slotOf } from "@/core/simulator/practice-slots";
import { appendEntries, newId } from "@/storage/jobs";
import { keepRecording, StorageFullError } from "@/storage/recordings";
import type { ListenerState } from "./use-listener";

interface LogbookHands {
  /** Returns a sentence when nothing could be logged. */
  log(phase: Phase): Promise<string | null>;
  /** Logs that an adjuster was turned (clockwise positive), or that work was done (null). */
  logTurn(adjuster: Adjuster, turns: number | null, atStop?: boolean): Promise<void>;
}

/** Writes what the logbook decides into the job. */
export function useLogbook(
  station: MeasuringStation | null,
  bench: OnTheBench,
  listener: ListenerState,
): LogbookHands {
  const book = useRef<Logbook>(CLOSED_LOGBOOK);
  const pen = (): Pen => ({ newId, now: Date.now() });

  const step = (event: LogEvent) => {
    if (!station) return { entries: { readings: [], adjustments: [] }, refused: null };
    const { logbook, ...outcome } = logStep(book.current, event, station, bench, pen());
    book.current = logbook;
    return outcome;
  };

  /** Stores readings with the sound behind them. Returns a sentence when that was not all possible. */
  const storeWithSound = async (entries: Entries, phase: Phase): Promise<string | null> => {
    // the sound is taken before anything else can change
    const heard = await listener.evidence().catch(() => null);
    const evidenceId = heard ? newId() : null;
    const readings = entries.readings.map((reading) => ({ ...reading, evidenceId }));
    await appendEntries({ ...entries, readings });
    if (!heard || !evidenceId) return null;
    try {
      await keepRecording({
        id: evidenceId,
        jobId: bench.here.job.id,
        at: readings[0].at,
        seconds: heard.seconds,
        what: `${station?.name.toLowerCase()}, ${phase}`,
        sound: new Blob([heard.wav as Uint8Array<ArrayBuffer>], { type: "audio/wav" }),
      });
      return null;
    } catch (error) {
      if (error instanceof StorageFullError) return error.message;
      return "The reading is logged, but its sound could not be kept in this browser's storage.";
    }
  };

  const log = async (phase: Phase) => {
    const { refused, entries } = step({ kind: "log", phase });
    return refused ?? storeWithSound(entries, phase);
  };

  const logTurn = async (adjuster: Adjuster, turns: number | null, atStop = false) => {
    const { entries } = step({ kind: "turned", adjuster, turns, atStop });
    // the source is told whether or not the turn could be stored: what it gave before is of another setting
    const stored = appendEntries(entries);
    const marks = await listener.markTurn(slotOf(adjuster, bench.here.machine.adjusters));
    if (turns === null) await listener.repairPractice(adjuster.id);
    step({ kind: "told", marks });
    await stored;
  };

  const { live, heard } = listener;
  const { adjustments } = bench.records;
  useEffect(() => {
    const { entries } = step({ kind: "heard", marks: live?.marks ?? 0 });
    if (entries.readings.length > 0) queueMicrotask(() => void storeWithSound(entries, "working"));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- asked whenever something new was heard or stored
  }, [live, heard, adjustments]);

  return { log, logTurn };
}
