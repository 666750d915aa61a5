import { useEffect, useRef } from "react";
import {
  CLOSED_LOGBOOK,
  isElsewhere,
  logStep,
  mayShowTurn,
  NO_ENTRIES,
  type Entries,
  type LogEvent,
  type LogStep,
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
import { thoughtToKeep } from "../use-bias-screws";
import type { ListenerState } from "../listening/use-listener";

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
  const looking = useRef(false);
  const line = useRef<Promise<unknown>>(Promise.resolve());
  const { thinker } = listener;

  /** Steps are taken in the order in which things happened, each with the bench as it stood then, however long it is thought about. */
  const step = (event: LogEvent): Promise<Pick<LogStep, "entries" | "refused">> => {
    if (!station) return Promise.resolve({ entries: NO_ENTRIES, refused: null });
    const pen: Pen = { newId, now: Date.now() };
    const taken = line.current.then(async () => {
      const keeps = event.kind !== "told";
      const stood = keeps ? await thoughtToKeep(bench, station, thinker) : bench;
      const { logbook, ...outcome } = logStep(book.current, event, station, stood, pen);
      book.current = logbook;
      return outcome;
    });
    line.current = taken.catch(() => undefined);
    return taken;
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
    const { refused, entries } = await step({ kind: "log", phase });
    return refused ?? storeWithSound(entries, phase);
  };

  const logTurn = async (adjuster: Adjuster, turns: number | null, atStop = false) => {
    const stored = step({ kind: "turned", adjuster, turns, atStop }).then(({ entries }) =>
      appendEntries(entries),
    );
    // the source is told at once, whether or not the turn can be stored: what it gave before is of another setting
    const marks = await listener.markTurn(slotOf(adjuster, bench.here.machine.adjusters));
    if (turns === null) await listener.repairPractice(adjuster.id);
    await step({ kind: "told", marks });
    await stored;
  };

  const { live, heard } = listener;
  const { adjustments } = bench.records;
  useEffect(() => {
    const marks = live?.marks ?? 0;
    // ten results come in a second: the next is asked when this one was thought about
    if (looking.current || !station) return;
    if (!isElsewhere(book.current, station, bench) && !mayShowTurn(book.current, marks, station, bench))
      return;
    looking.current = true;
    void step({ kind: "heard", marks })
      .then(({ entries }) => (entries.readings.length > 0 ? storeWithSound(entries, "working") : null))
      .finally(() => (looking.current = false));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- asked whenever something new was heard or stored
  }, [live, heard, adjustments, station]);

  return { log, logTurn };
}
