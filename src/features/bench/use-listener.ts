import { useEffect, useReducer, useRef, useState } from "react";
import { openSoundCard } from "@/audio/sound-card";
import { soundDevices, watchDevices } from "@/audio/sound-devices";
import type { Geometry } from "@/core/advice/transport-view";
import type { LiveSource } from "@/core/live/heard-live";
import type { ListeningResult } from "@/core/live/listening-result";
import { Sessions, type Session } from "@/core/live/session";
import type { WatchedBefore } from "@/core/measure/watch-log";
import type { HeadTracks } from "@/core/playback/azimuth-view";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import { switchesOf, type DeckStatus } from "@/core/simulator/deck-status";
import { PRACTICE_FULL_SCALE, practiceParameters } from "@/core/simulator/practice-machines";
import { readCalibration } from "@/storage/calibrations";
import { everySequence } from "@/storage/sequences";
import { readSettings } from "@/storage/settings";
import { useLatestOf } from "@/ui/use-latest";
import { NOTHING_WANTED, type Wanted } from "@/workers/listener-api";
import { callback, finishListener, handOver, startListener, type Listener } from "@/workers/start-worker";
import { Thinker } from "@/workers/thinker";
import { freshPractice, keepPractice, keptPractice, recordingLeft, withRecording } from "./kept-practice";
import { listening, NOTHING_HEARD, type ListeningState } from "./listening-state";
import type { OpenedSource } from "./opened-source";
import { practiceHands } from "./practice-hands";

interface ListenOptions {
  jobId: string;
  machineId: string;
  machineName: string;
  tape: ReferenceTape;
  /** Frequency that the reference tone should have at this tape speed. */
  nominalHz: number;
  speedCmPerS: number;
  geometry: Geometry;
  tracks: HeadTracks | null;
}

/** One source at a time for the bench: the practice machine, the sound card, or a file. */
export function useListener(options: ListenOptions) {
  const [state, dispatch] = useReducer(listening, NOTHING_HEARD);
  const now = useRef(state);
  now.current = state;
  const sessions = useRef(new Sessions());
  const [thinker] = useState(() => new Thinker());
  const opened = useRef<OpenedSource | null>(null);
  const wanted = useRef<Wanted>(NOTHING_WANTED);
  const { jobId } = options;

  useEffect(() => {
    thinker.begin();
    const open = sessions.current;
    return () => {
      void open.end();
      thinker.end();
    };
  }, [thinker]);

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

  /** A source stopped by itself: what was measured stays to be seen, what was logged is stored. */
  const loseSource = (session: Session, why: string) => {
    if (session.closed) return;
    void session.close();
    dispatch({ session: session.id, kind: "lost", why: `${why} What was logged is kept.` });
  };

  const openWorker = (session: Session): OpenedSource => {
    const worker = startListener();
    session.own(() => finishListener(worker));
    const mine: OpenedSource = { session, worker, kept: null, sends: null };
    opened.current = mine;
    worker.died.catch(({ message }: Error) => loseSource(session, message));
    void worker.api.want(wanted.current);
    return mine;
  };

  /** What may be played, on which machine, live or in a file. */
  const played = async () => ({
    tape: options.tape,
    speedFactor: options.speedCmPerS / options.tape.speedCmPerS,
    nominalHz: options.nominalHz,
    tracks: options.tracks,
    sequences: await everySequence(),
  });

  const listenFor = async () => ({
    ...(await played()),
    evidenceSeconds: (await readSettings()).evidenceSeconds,
  });

  /** Keeps how far a recording of the practice machine is, so that it goes on when the page is loaded anew. */
  const keepRecording = (mine: OpenedSource, deck: DeckStatus) => {
    const kept = mine.kept && withRecording(mine.kept, deck, mine.sends);
    if (!kept) return;
    mine.kept = kept;
    void keepPractice(jobId, kept);
  };

  /** Shows what a live source gives, and thinks about the parts that are heard in it. */
  const take = (session: Session, { api }: Listener, from: LiveSource) => {
    const { geometry } = options;
    return (result: ListeningResult, deck?: DeckStatus) => {
      dispatch({ session: session.id, kind: "heard", result, from, deck });
      if (deck && opened.current?.session === session) keepRecording(opened.current, deck);
      if (result.stretch)
        void thinker.ask("parts", "parts", { stretch: result.stretch, geometry }).then((transport) => {
          if (!transport || session.closed) return;
          dispatch({ session: session.id, kind: "parts found", transport, told: result.marks });
          void api.noteTransport(transport.events, transport.finding.spectrum);
        });
    };
  };

  /** What did not start, or broke off, is ended and told; of a session that has ended nobody wants to know. */
  const fail = (session: Session, why: string, canStartAgain: boolean) => {
    if (session.closed) return;
    void session.close();
    dispatch({ session: session.id, kind: "failed", why, canStartAgain });
  };

  const stop = async () => {
    dispatch({ session: now.current.session, kind: "stopped" });
    await sessions.current.end();
  };

  const startPractice = async (conditionId: string) => {
    const session = sessions.current.begin();
    const { id } = session;
    dispatch({ session: id, kind: "begun", source: "practice" });
    try {
      // the tape of the machine before has to be kept before it is put in again
      await sessions.current.earlierEnded();
      const before = await keptPractice(jobId);
      const kept = before?.conditionId === conditionId ? before : freshPractice(conditionId);
      await keepPractice(jobId, kept);
      const about = await listenFor();
      if (session.closed) return;
      const mine = openWorker(session);
      mine.kept = kept;
      mine.sends = kept.records?.sequence ?? null;
      const parameters = practiceParameters(options.machineId, conditionId, options.speedCmPerS);
      const pace = (await readSettings()).practicePace;
      const from: LiveSource = {
        source: { kind: "practice", name: options.machineName },
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
        callback(take(session, mine.worker, from)),
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
      fail(session, (error as Error).message, false);
    }
  };

  const startSoundCard = async () => {
    const session = sessions.current.begin();
    const { id } = session;
    dispatch({ session: id, kind: "begun", source: "sound card" });
    const lose = (why: string) => loseSource(session, why);
    try {
      await sessions.current.earlierEnded();
      const { inputId } = await readSettings();
      if (session.closed) return;
      const input = await openSoundCard(inputId, (loss) =>
        lose(
          loss === "unplugged"
            ? "The sound card went away. Plug it in and start it again."
            : "The sound card was stopped by the system, by sleep or by another program. Start it again.",
        ),
      );
      session.own(() => input.stop());
      const { port, ...about } = input;
      const calibration = (await readCalibration(input.deviceId)) ?? null;
      const listen = await listenFor();
      if (session.closed) return;
      dispatch({ session: id, kind: "card opened", card: { ...about, calibration } });
      const clock = calibration?.clock;
      const { worker } = openWorker(session);
      const from: LiveSource = {
        source: { kind: "sound card", name: input.name },
        clockPercent: clock ? clock.uncertaintyPpm / 1e4 : undefined,
        fullScale: calibration?.level ?? null,
        ownNoiseDbfs: calibration?.loopBack?.noiseDbfs ?? null,
      };
      await worker.api.startInput(
        handOver(port, [port]),
        { sampleRateHz: input.sampleRateHz, channelCount: input.channelCount, clockPpm: clock?.ppm ?? 0 },
        listen,
        callback(take(session, worker, from)),
        callback(() => lose("Nothing has come from the sound card for a while. Start it again.")),
      );
      dispatch({
        session: id,
        kind: "card started",
        trouble:
          input.processing.length > 0
            ? `The browser changes the sound (${input.processing.join(", ")}) although it was asked not to. Levels cannot be trusted; turn that off in the system's sound settings.`
            : null,
      });
    } catch (error) {
      fail(session, (error as Error).message, true);
    }
  };

  const measureFile = async (file: File) => {
    const session = sessions.current.begin();
    const { id } = session;
    dispatch({ session: id, kind: "begun", source: "file" });
    dispatch({ session: id, kind: "progress", share: 0 });
    try {
      const { sequence: sequenceId, recording, blanking } = wanted.current;
      const watches: "recording" | "blanking" | null = recording ? "recording" : blanking ? "blanking" : null;
      const as = {
        ...(await played()),
        geometry: options.geometry,
        sequenceId,
        watches,
      };
      if (session.closed) return;
      const worker = startListener();
      session.own(() => worker.end());
      const measured = await worker.api.measureFile(
        file,
        as,
        callback((share: number) => dispatch({ session: id, kind: "progress", share })),
      );
      if (session.closed) return;
      dispatch({ session: id, kind: "file measured", file: measured });
    } catch (error) {
      fail(session, `${file.name}: ${(error as Error).message}`, false);
    } finally {
      void session.close();
    }
  };

  // another tape speed or another tape: what is listened for has changed
  const heardFor = useRef(`${options.speedCmPerS} ${options.tape.id}`);
  useEffect(() => {
    const key = `${options.speedCmPerS} ${options.tape.id}`;
    if (heardFor.current === key) return;
    heardFor.current = key;
    const { kind, practice } = now.current;
    const again = async () => {
      if (kind === "practice" && practice) await startPractice(practice.conditionId);
      else if (kind === "sound card") await startSoundCard();
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

  // ten results come in a second: what only hands them on is not drawn anew for each
  const asked = useLatestOf({
    ...hands,
    dismissTrouble: () => event({ kind: "trouble dismissed" }),
    startPractice,
    startSoundCard,
    measureFile,
    stop,
    /** What the station that is worked at needs to hear. */
    want: (what: Wanted) => {
      wanted.current = what;
      void running()?.worker.api.want(what);
    },
    /** The other direction of a live source plays, or another head; what a file gave stays. */
    clearPlayback: (turnedOver = false) => {
      const mine = running();
      if (!mine) return;
      event({ kind: "tones cleared", turnedOver });
      void mine.worker.api.clearPlayback();
    },
    /** Another thing is quiet from now on. */
    forgetQuiet: () => {
      const mine = running();
      if (!mine) return;
      event({ kind: "quiet forgotten" });
      void mine.worker.api.forgetQuiet();
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

export type ListenerState = ReturnType<typeof useListener>;
export type { ListeningState };
