import { useCallback, useEffect, useRef, useState } from "react";
import { openSoundCard, type SoundCardInput } from "@/audio/sound-card";
import { watchDevices, soundDevices } from "@/audio/sound-devices";
import type { Reading } from "@/core/alignment/records";
import type { ListeningResult } from "@/core/listen/live-listening";
import type { Geometry, TransportView } from "@/core/listen/transport-view";
import type { PlaybackNow } from "@/core/listen/playback-now";
import type { HeadTracks } from "@/core/listen/playback-view";
import type { DeckKey, DeckStatus } from "@/core/machine/practice-deck";
import { practiceParameters } from "@/core/machine/practice-machines";
import type { WatchTrack } from "@/core/measure/watch-log";
import type { SignalReport } from "@/core/measure/signal-findings";
import type { ReferenceTape } from "@/core/reference/reference-tape";
import type { Sequence } from "@/core/signals/sequence";
import type { Calibration } from "@/core/alignment/input-calibration";
import { readCalibration } from "@/storage/calibrations";
import { readSettings } from "@/storage/settings";
import type { StripPoint } from "@/ui/strip";
import type { PracticeState, SlotState } from "@/workers/listener-api";
import { callback, handOver, startListener, type Listener } from "@/workers/start-worker";
import { freshPractice, keepPractice, keptPractice, type KeptPractice } from "./kept-practice";
import { measuredFile, measuredLive, type Measured } from "./measured";

export type SourceKind = Exclude<Reading["source"]["kind"], "by hand">;

export interface PracticeSetUp {
  conditionId: string;
  trimmers: SlotState[];
  /** Where each slot pointed when its last turn was logged. */
  loggedTurns: number[];
  deck: DeckStatus;
  /** Two heads or three, and whether it plays backwards by itself. */
  heads: number;
  autoReverse: boolean;
}

/** The sound card that is heard, or was heard last. */
export interface HeardCard {
  deviceId: string;
  name: string;
  sampleRateHz: number;
  channelCount: number;
  processing: string[];
  calibration: Calibration | null;
}

interface ListenOptions {
  machineId: string;
  machineName: string;
  tape: ReferenceTape;
  nominalHz: number;
  speedCmPerS: number;
  jobId: string;
  geometry: Geometry;
  tracks: HeadTracks | null;
}

const STRIP_SECONDS = 95;

/** One source at a time for the bench: the practice machine, the sound card, or a file. */
export function useListener(options: ListenOptions) {
  const listener = useRef<Listener | null>(null);
  const card = useRef<SoundCardInput | null>(null);
  const kept = useRef<KeptPractice | null>(null);
  const [kind, setKind] = useState<SourceKind | null>(null);
  const [live, setLive] = useState<ListeningResult | null>(null);
  const [check, setCheck] = useState<SignalReport | null>(null);
  const [measured, setMeasured] = useState<Measured | null>(null);
  const [transport, setTransport] = useState<TransportView | null>(null);
  const [watch, setWatch] = useState<WatchTrack | null>(null);
  const [watching, setWatching] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  /** The sound card was lost and can be started again. */
  const [lost, setLost] = useState(false);
  const [progress, setProgress] = useState<number | null>(null);
  const [practice, setPractice] = useState<PracticeSetUp | null>(null);
  const [heardCard, setHeardCard] = useState<HeardCard | null>(null);
  const [speedStrip, setSpeedStrip] = useState<StripPoint[]>([]);
  const [flutterStrip, setFlutterStrip] = useState<StripPoint[]>([]);
  const [marks, setMarks] = useState<number[]>([]);
  const [playback, setPlayback] = useState<PlaybackNow | null>(null);
  const [flutter, wantFlutter] = useState(false);
  const [tones, wantPlayback] = useState<string | null>(null);
  /** Results from before the last turn that was told may still be on their way. */
  const marked = useRef(0);
  const { jobId } = options;

  const api = useCallback(() => {
    listener.current ??= startListener();
    return listener.current.api;
  }, []);

  useEffect(
    () => () => {
      card.current?.stop();
      card.current = null;
      listener.current?.end();
      listener.current = null;
    },
    [],
  );

  useEffect(() => {
    if (kind && kind !== "file") void api().showFlutter(flutter);
  }, [api, kind, flutter]);

  useEffect(() => {
    if (kind && kind !== "file") void api().showPlayback(tones);
  }, [api, kind, tones]);

  useEffect(() => {
    if (!lost || !heardCard) return;
    return watchDevices(async () => {
      const { inputs } = await soundDevices();
      if (inputs.some(({ id }) => id === heardCard.deviceId))
        setTrouble(`${heardCard.name} is back. Start it again; what was logged is kept.`);
    });
  }, [lost, heardCard]);

  const clear = () => {
    setLive(null);
    setCheck(null);
    setMeasured(null);
    setTransport(null);
    setPlayback(null);
    setWatch(null);
    setWatching(false);
    setSpeedStrip([]);
    setFlutterStrip([]);
    setMarks([]);
    setTrouble(null);
    setLost(false);
  };

  const show = (source: Reading["source"], clockPercent?: number) => (result: ListeningResult) => {
    if (result.marks < marked.current) return;
    setLive(result);
    setMeasured(measuredLive(result, source, clockPercent));
    if (result.check) setCheck(result.check);
    if (result.transport) setTransport(result.transport);
    if (result.playback) setPlayback(result.playback);
    if (result.watch) setWatch(result.watch);
    const add = (value: number) => (points: StripPoint[]) => [
      ...points.filter(({ seconds }) => seconds > result.seconds - STRIP_SECONDS),
      { seconds: result.seconds, value },
    ];
    if (result.speed) setSpeedStrip(add(result.speed.instantPercent));
    if (result.flutter) setFlutterStrip(add(result.flutter.weighted.peakPercent));
  };

  const listenFor = async () => ({
    tape: options.tape,
    speedFactor: options.speedCmPerS / options.tape.speedCmPerS,
    nominalHz: options.nominalHz,
    geometry: options.geometry,
    tracks: options.tracks,
    evidenceSeconds: (await readSettings()).evidenceSeconds,
  });

  const stop = async () => {
    card.current?.stop();
    card.current = null;
    await listener.current?.api.stop();
    marked.current = 0;
    setKind(null);
    setPractice(null);
    clear();
  };

  const startPractice = async (conditionId: string) => {
    await stop();
    const parameters = practiceParameters(options.machineId, conditionId, options.speedCmPerS);
    const showIt = show({ kind: "practice", name: options.machineName }, 0);
    const before = await keptPractice(jobId);
    kept.current = before?.conditionId === conditionId ? before : freshPractice(conditionId);
    await keepPractice(jobId, kept.current);
    const state = await api().startPractice(
      { parameters, seed: kept.current.seed, turnedTo: kept.current.slotTurns, done: kept.current.done },
      await listenFor(),
      callback((result: ListeningResult, deck: DeckStatus) => {
        showIt(result);
        setPractice((p) => p && { ...p, deck });
      }),
    );
    setPractice({
      conditionId,
      loggedTurns: kept.current.loggedTurns,
      heads: parameters["deck.heads"],
      autoReverse: parameters["deck.autoReverse"] > 0,
      ...state,
    });
    setKind("practice");
  };

  /** The sound card stopped by itself: what was measured stays to be seen, what was logged is stored. */
  const loseCard = (why: string) => {
    card.current?.stop();
    card.current = null;
    void listener.current?.api.stop();
    setKind(null);
    setTrouble(`${why} What was logged is kept.`);
    setLost(true);
  };

  const startSoundCard = async () => {
    await stop();
    try {
      const { inputId } = await readSettings();
      const input = await openSoundCard(inputId, (loss) =>
        loseCard(
          loss === "unplugged"
            ? "The sound card went away. Plug it in and start it again."
            : "The sound card was stopped by the system, by sleep or by another program. Start it again.",
        ),
      );
      card.current = input;
      const { port, ...about } = input;
      const calibration = (await readCalibration(input.deviceId)) ?? null;
      setHeardCard({ ...about, calibration });
      const clock = calibration?.clock;
      await api().startInput(
        handOver(port, [port]),
        {
          sampleRateHz: input.sampleRateHz,
          channelCount: input.channelCount,
          clockPpm: clock?.ppm ?? 0,
        },
        await listenFor(),
        callback(
          show({ kind: "sound card", name: input.name }, clock ? clock.uncertaintyPpm / 1e4 : undefined),
        ),
        callback(() => loseCard("Nothing has come from the sound card for a while. Start it again.")),
      );
      setKind("sound card");
      if (input.processing.length > 0)
        setTrouble(
          `The browser changes the sound (${input.processing.join(", ")}) although it was asked not to. Levels cannot be trusted; turn that off in the system's sound settings.`,
        );
    } catch (error) {
      card.current?.stop();
      card.current = null;
      setTrouble((error as Error).message);
      setLost(true);
    }
  };

  const measureFile = async (file: File) => {
    await stop();
    setKind("file");
    setProgress(0);
    try {
      const result = await api().measureFile(file, await listenFor(), callback(setProgress));
      setTransport(result?.transport ?? null);
      setPlayback(result?.playback ?? null);
      if (result) setMeasured(measuredFile(result));
      else setKind(null);
    } catch (error) {
      setKind(null);
      setTrouble(`${file.name}: ${(error as Error).message}`);
    } finally {
      setProgress(null);
    }
  };

  // another tape speed or another tape: what is listened for has changed
  const heardFor = useRef(`${options.speedCmPerS} ${options.tape.id}`);
  useEffect(() => {
    const now = `${options.speedCmPerS} ${options.tape.id}`;
    if (heardFor.current === now) return;
    heardFor.current = now;
    const again = async () => {
      if (kind === "practice" && practice) await startPractice(practice.conditionId);
      else if (kind === "sound card") await startSoundCard();
      else if (kind === "file") await stop();
    };
    queueMicrotask(() => void again());
  });

  const keepSlots = async (changed: Partial<KeptPractice>) => {
    if (!kept.current) return;
    kept.current = { ...kept.current, ...changed };
    await keepPractice(jobId, kept.current);
  };
  const setState = (state: PracticeState) => setPractice((p) => p && { ...p, ...state });

  return {
    kind,
    live,
    check,
    measured,
    transport,
    /** The tones of the tape that were heard, and what they add up to. */
    playback,
    watch,
    watching,
    tapeName: options.tape.name,
    trouble,
    lost,
    progress,
    practice,
    card: heardCard,
    speedStrip,
    flutterStrip,
    marks,
    dismissTrouble: () => {
      setTrouble(null);
      setLost(false);
    },
    startPractice,
    startSoundCard,
    measureFile,
    stop,
    wantFlutter,
    wantPlayback,
    /** The other direction plays, or another head. */
    clearPlayback: () => {
      setPlayback(null);
      if (kind && kind !== "file") void api().clearPlayback();
    },
    clearHold: () => void api().clearHold(),
    explain: (...curve: Parameters<Listener["api"]["explain"]>) => api().explain(...curve),
    /** Does work on the practice machine. */
    repairPractice: async (work: string) => {
      if (kind !== "practice") return;
      await api().repairPractice(work);
      await keepSlots({ done: [...(kept.current?.done ?? []), work] });
    },
    startWatch: () => {
      setWatch(null);
      setWatching(true);
      void api().watch(true);
    },
    stopWatch: () => {
      setWatching(false);
      void api().watch(false);
    },
    /** How the practice machine of this job came in, if it was played before. */
    keptCondition: async () => (await keptPractice(jobId))?.conditionId,
    cancelFile: () => void api().cancelFile(),
    /** The last seconds that were heard, as a WAV file; null when nothing is kept. */
    evidence: async () => (kind && kind !== "file" ? api().evidence() : null),
    /** What the last second says about left and right. */
    findSides: () => api().findSides(),
    /** Turns a slot of the practice machine. */
    turnPractice: async (trimmer: number, turns: number) => {
      const state = await api().turnPractice(trimmer, turns);
      setState(state);
      await keepSlots({ slotTurns: state.trimmers.map(({ slotTurns }) => slotTurns) });
    },
    pressKey: async (key: DeckKey) => setState(await api().pressKey(key)),
    loadTape: async (tape: ReferenceTape | null) => setState(await api().loadTape(tape)),
    turnSide: async () => setState(await api().turnSide()),
    resetCounter: async () => setState(await api().resetCounter()),
    chooseInput: (sequence: Sequence | null) => void api().chooseInput(sequence),
    /** Says that a turn of a trimmer, or other work, was logged just now. Resolves to how often that was told to this source. */
    markTurn: async (trimmer: number | null) => {
      if (practice && trimmer !== null) {
        const loggedTurns = practice.loggedTurns.with(trimmer, practice.trimmers[trimmer].slotTurns);
        setPractice((p) => p && { ...p, loggedTurns });
        await keepSlots({ loggedTurns });
      }
      if (live) setMarks((m) => [...m, live.seconds]);
      setTransport(null);
      if (!kind || kind === "file") return 0;
      marked.current = await api().mark();
      // what was measured before the turn is settled no more, though it shows until there is something newer
      setMeasured((m) => m && { ...m, speed: m.speed && { ...m.speed, settled: false } });
      setPlayback((now) => now && beforeTurn(now));
      return marked.current;
    },
  };
}

/** What was heard, as it counts once something was turned. */
const beforeTurn = (now: PlaybackNow): PlaybackNow => ({
  ...now,
  tones: now.tones.map((tone) => ({ ...tone, fresh: false })),
  responses: now.responses.map((run) => (run.from === "bands" ? run : { ...run, fresh: false })),
  playing: now.playing && { ...now.playing, settled: false, before: null },
  phase: now.phase && { ...now.phase, settled: false },
});

export type ListenerState = ReturnType<typeof useListener>;
