import { useEffect, useReducer, useRef, useState } from "react";
import { soundDevices, watchDevices } from "@/audio/sound-devices";
import { Sessions } from "@/core/live/session";
import type { Circumstances } from "@/core/records/reading";
import type { WatchedBefore } from "@/core/measure/watch-log";
import { useLatestOf } from "@/ui/use-latest";
import { NOTHING_WANTED, type Wanted } from "@/workers/listener-api";
import { Thinker } from "@/workers/thinker";
import { keepPractice, keptPractice } from "./kept-practice";
import { listening, NOTHING_HEARD, type ListeningState } from "./listening-state";
import { measureFile } from "./measure-file";
import { practiceHands } from "./practice-hands";
import type { ListenOptions, OpenedSource, SourceDesk } from "./source-desk";
import { startPractice } from "./start-practice";
import { startSoundCard } from "./start-sound-card";

/** One source at a time for the bench: the practice machine, the sound card, or a file. */
export function useListener(options: ListenOptions) {
  const [state, dispatch] = useReducer(listening, NOTHING_HEARD);
  const now = useRef(state);
  now.current = state;
  const [sessions] = useState(() => new Sessions());
  const [thinker] = useState(() => new Thinker());
  const opened = useRef<OpenedSource | null>(null);
  const wanted = useRef<Wanted>(NOTHING_WANTED);
  const { jobId } = options;
  const heardFor = useRef<HeardFor | null>(null);

  useEffect(() => {
    thinker.begin();
    return () => {
      void sessions.end();
      thinker.end();
    };
  }, [sessions, thinker]);

  const { lost, card } = state;
  useEffect(() => {
    if (!lost || !card) return;
    const { session } = now.current;
    return watchDevices(async () => {
      const { inputs } = await soundDevices();
      if (inputs.some(({ id }) => id === card.deviceId))
        dispatch({ session, kind: "card is back", name: card.name });
    });
  }, [lost, card]);

  /** The worker of the session that runs, if that is a live one. */
  const running = (): OpenedSource | null =>
    opened.current && !opened.current.session.closed && now.current.kind !== "file" ? opened.current : null;

  const desk: SourceDesk = { options, sessions, thinker, opened, wanted, dispatch };

  const stop = async () => {
    dispatch({ session: now.current.session, kind: "stopped" });
    await sessions.end();
  };

  // another tape speed or another tape: what is listened for has changed
  const listenedFor = useRef(`${options.speedCmPerS} ${options.tape.id}`);
  useEffect(() => {
    const key = `${options.speedCmPerS} ${options.tape.id}`;
    if (listenedFor.current === key) return;
    listenedFor.current = key;
    const { kind, practice } = now.current;
    const again = async () => {
      if (kind === "practice" && practice) await startPractice(desk, practice.conditionId);
      else if (kind === "sound card") await startSoundCard(desk);
      else if (kind === "file") await stop();
    };
    queueMicrotask(() => void again());
  });

  const hands = practiceHands({
    jobId,
    running,
    dispatch: (session, happened) => dispatch({ session: session.id, ...happened }),
  });

  const event = (
    one:
      | { kind: "watch"; on: boolean }
      | { kind: "trouble dismissed" }
      | { kind: "tones cleared"; turnedOver: boolean }
      | { kind: "quiet forgotten" }
      | { kind: "controls begun" },
  ) => dispatch({ session: now.current.session, ...one });

  /** The other direction of a live source plays, or another head; what a file gave stays. */
  const clearPlayback = (turnedOver = false) => {
    const mine = running();
    if (!mine) return;
    event({ kind: "tones cleared", turnedOver });
    void mine.worker.api.clearPlayback();
  };
  /** Another thing is quiet from now on. */
  const forgetQuiet = () => {
    const mine = running();
    if (!mine) return;
    event({ kind: "quiet forgotten" });
    void mine.worker.api.forgetQuiet();
  };

  // ten results come in a second: what only hands them on is not drawn anew for each
  const asked = useLatestOf({
    ...hands,
    dismissTrouble: () => event({ kind: "trouble dismissed" }),
    startPractice: (conditionId: string) => startPractice(desk, conditionId),
    startSoundCard: () => startSoundCard(desk),
    measureFile: (file: File) => measureFile(desk, file),
    stop,
    /** What the station that is worked at needs to hear. */
    want: (what: Wanted) => {
      wanted.current = what;
      void running()?.worker.api.want(what);
    },
    /** What plays from now on; what was heard of another direction, head or tape is forgotten. */
    playsFor: (now: HeardFor) => {
      const before = heardFor.current;
      heardFor.current = now;
      if (before === null) return;
      if (before.plays !== now.plays || before.side !== now.side) clearPlayback(before.plays === now.plays);
      if (before.noiseOf !== now.noiseOf) forgetQuiet();
    },
    /** The last seconds of what is heard, as a file. */
    clip: async (seconds: number) => (await running()?.worker.api.clip(seconds)) ?? null,
    beginControls: () => {
      const mine = running();
      if (!mine) return;
      event({ kind: "controls begun" });
      void mine.worker.api.beginControls();
    },
    /** Times how long the mechanism runs, from the next time that it is quiet. The how manyeth time that is; null without a source. */
    beginWind: async () => (await running()?.worker.api.beginWind()) ?? null,
    /** Listens for an old programme that goes quiet, from now on. */
    beginBlanking: () => {
      const mine = running();
      if (!mine) return;
      event({ kind: "quiet forgotten" });
      void mine.worker.api.beginBlanking();
    },
    /** By hand: what is heard is the source, or the tape; null leaves it to Unzel. */
    sayHears: (what: "source" | "tape" | null) => void running()?.worker.api.sayHears(what),
    clearHold: () => void running()?.worker.api.clearHold(),
    /** Watches a long run from now on, or goes on with one. */
    startWatch: (before: WatchedBefore | null = null) => {
      event({ kind: "watch", on: true });
      void running()?.worker.api.watch(true, before);
    },
    stopWatch: () => {
      event({ kind: "watch", on: false });
      void running()?.worker.api.watch(false, null);
    },
    /** How the practice machine of this job came in, if it was played before. */
    keptCondition: async () => (await keptPractice(jobId))?.conditionId,
    /** The last seconds that were heard, as a WAV file; null when nothing is kept. */
    evidence: async () => running()?.worker.api.evidence() ?? null,
    /** What the last second says about left and right. */
    findSides: async () => {
      const mine = running();
      if (!mine) throw new Error("Start the source first.");
      return mine.worker.api.findSides();
    },
    /** Says that a turn of a trimmer, or other work, was logged just now. Resolves to how often that was told to this source. */
    markTurn: async (trimmer: number | null): Promise<number> => {
      const mine = running();
      const { session, practice, starting, kind } = now.current;
      dispatch({ session, kind: "turned" });
      // what has not started yet will hear nothing from before the turn
      if (!mine && starting && kind !== "file") return 0;
      if (!mine) {
        // a file was recorded before the turn: nothing in it shows what the turn did
        dispatch({ session, kind: "told", times: now.current.told + 1 });
        return now.current.told + 1;
      }
      if (practice && mine.kept && trimmer !== null) {
        const loggedTurns = practice.loggedTurns.with(trimmer, practice.trimmers[trimmer].slotTurns);
        dispatch({ session, kind: "turns logged", loggedTurns });
        mine.kept = { ...mine.kept, loggedTurns };
        await keepPractice(jobId, mine.kept);
      }
      const times = await mine.worker.api.mark();
      dispatch({ session, kind: "told", times });
      return times;
    },
  });
  return {
    ...state,
    ...asked,
    /** Sound of a live source has come: what is begun now is begun in it. */
    hears: state.kind !== null && state.kind !== "file" && state.live !== null,
    tapeName: options.tape.name,
    thinker,
  };
}

/** What the tones and the quiet of a source were heard for: head, blank tape and switches, direction, and what is quiet. */
interface HeardFor {
  plays: string;
  side: Circumstances["side"];
  noiseOf: Circumstances["noiseOf"];
}

export type ListenerState = ReturnType<typeof useListener>;
export type { ListeningState };
