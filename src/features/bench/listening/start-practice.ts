import type { LiveSource } from "@/core/live/heard-live";
import { switchesOf } from "@/core/simulator/deck-status";
import { PRACTICE_FULL_SCALE, practiceParameters } from "@/core/simulator/practice-machines";
import { readSettings } from "@/storage/settings";
import { callback } from "@/workers/start-worker";
import { freshPractice, keepPractice, keptPractice, recordingLeft } from "./kept-practice";
import { fail, listenFor, openWorker, take, type SourceDesk } from "./source-desk";

/** Starts the practice machine of the job as it was left, or as it comes in. @param conditionId how it comes in */
export async function startPractice(desk: SourceDesk, conditionId: string): Promise<void> {
  const { options, sessions, dispatch } = desk;
  const { jobId, machineId, machineName, speedCmPerS } = options;
  const session = sessions.begin();
  const { id } = session;
  dispatch({ session: id, kind: "begun", source: "practice" });
  try {
    // the tape of the machine before has to be kept before it is put in again
    await sessions.earlierEnded();
    const before = await keptPractice(jobId);
    const kept = before?.conditionId === conditionId ? before : freshPractice(conditionId);
    await keepPractice(jobId, kept);
    const about = await listenFor(options);
    if (session.closed) return;
    const mine = openWorker(desk, session);
    mine.kept = kept;
    mine.sends = kept.records?.sequence ?? null;
    const parameters = practiceParameters(machineId, conditionId, speedCmPerS);
    const pace = (await readSettings()).practicePace;
    const from: LiveSource = {
      source: { kind: "practice", name: machineName },
      pace,
      clockPercent: 0,
      fullScale: PRACTICE_FULL_SCALE,
    };
    const started = await mine.worker.api.startPractice(
      {
        parameters,
        seed: kept.seed,
        turnedTo: kept.slotTurns,
        done: kept.done,
        switches: kept.switches,
        pace,
        goesOn: await recordingLeft(kept),
      },
      about,
      callback(take(desk, mine, from)),
    );
    dispatch({
      session: id,
      kind: "practice started",
      practice: {
        conditionId,
        loggedTurns: kept.loggedTurns,
        heads: parameters["deck.heads"],
        autoReverse: parameters["deck.autoReverse"] > 0,
        switches: switchesOf(parameters),
        ...started,
      },
    });
  } catch (error) {
    fail(desk, session, (error as Error).message, false);
  }
}
