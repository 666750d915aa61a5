import { useCallback, useEffect, useRef, useState } from "react";
import { readDraft, saveDraft } from "@/storage/drafts";
import { openSoundCard, type SoundCardInput } from "@/audio/sound-card";
import { PRACTICE_CONDITIONS, PRACTICE_MACHINES } from "@/core/machine/practice-machines";
import type { LiveResult } from "@/core/measure/live-transport";
import type { StripPoint } from "@/ui/strip";
import { callback, handOver, startListener, type Listener } from "@/workers/start-listener";
import type { Reading } from "@/core/alignment/records";
import { measuredFile, measuredLive, type Measured } from "./measured";

export type SourceKind = Reading["source"]["kind"];

export interface PracticeSetUp {
  conditionId: string;
  /** Where the trimmer's slot points now, and where it did when the last turn was logged. */
  slotTurns: number;
  loggedTurns: number;
  atStop: boolean;
}

interface ListenOptions {
  machineId: string;
  machineName: string;
  nominalHz: number;
  speedCmPerS: number;
  jobId: string;
}

/** What is kept of a practice machine between visits: its trimmer stays where it was left. */
interface KeptPractice {
  conditionId: string;
  seed: number;
  slotTurns: number;
  loggedTurns: number;
}

const STRIP_SECONDS = 95;

/** One source at a time for the bench: the practice machine, the sound card, or a file. */
export function useListener(options: ListenOptions) {
  const listener = useRef<Listener | null>(null);
  const card = useRef<SoundCardInput | null>(null);
  const kept = useRef<KeptPractice | null>(null);
  const [kind, setKind] = useState<SourceKind | null>(null);
  const [live, setLive] = useState<LiveResult | null>(null);
  const [measured, setMeasured] = useState<Measured | null>(null);
  const [spectrum, setSpectrum] = useState<LiveResult["spectrum"]>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const [practice, setPractice] = useState<PracticeSetUp | null>(null);
  const [speedStrip, setSpeedStrip] = useState<StripPoint[]>([]);
  const [flutterStrip, setFlutterStrip] = useState<StripPoint[]>([]);
  const [marks, setMarks] = useState<number[]>([]);
  const [flutter, wantFlutter] = useState(false);
  const keptId = `practice-${options.jobId}`;

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

  const clear = () => {
    setLive(null);
    setMeasured(null);
    setSpectrum(null);
    setSpeedStrip([]);
    setFlutterStrip([]);
    setMarks([]);
    setTrouble(null);
  };

  const onResult = (source: Reading["source"]) =>
    callback((result: LiveResult) => {
      setLive(result);
      setMeasured(measuredLive(result, source));
      if (result.spectrum) setSpectrum(result.spectrum);
      const add = (value: number) => (points: StripPoint[]) => [
        ...points.filter(({ seconds }) => seconds > result.seconds - STRIP_SECONDS),
        { seconds: result.seconds, value },
      ];
      if (result.speed) setSpeedStrip(add(result.speed.instantPercent));
      if (result.flutter) setFlutterStrip(add(result.flutter.weighted.peakPercent));
    });

  const stop = async () => {
    card.current?.stop();
    card.current = null;
    await listener.current?.api.stop();
    setKind(null);
    setPractice(null);
    clear();
  };

  const startPractice = async (conditionId: string) => {
    await stop();
    const model = PRACTICE_MACHINES.find(({ id }) => id === options.machineId);
    const condition = PRACTICE_CONDITIONS.find(({ id }) => id === conditionId) ?? PRACTICE_CONDITIONS[0];
    const parameters = {
      ...(model ?? PRACTICE_MACHINES[2]).transport,
      speedCmPerS: options.speedCmPerS,
      ...condition.settings,
    };
    const source = { kind: "practice" as const, name: options.machineName };
    const before = (await readDraft(keptId)) as KeptPractice | undefined;
    kept.current =
      before?.conditionId === conditionId
        ? before
        : { conditionId, seed: 1 + Math.floor(Math.random() * 1e6), slotTurns: 0, loggedTurns: 0 };
    await saveDraft(keptId, kept.current);
    const state = await api().startPractice(
      { parameters, toneHz: options.nominalHz, seed: kept.current.seed },
      options.nominalHz,
      kept.current.slotTurns,
      onResult(source),
    );
    setPractice({ conditionId, loggedTurns: kept.current.loggedTurns, ...state });
    setKind("practice");
  };

  const startSoundCard = async () => {
    await stop();
    try {
      const input = await openSoundCard(() => {
        void listener.current?.api.stop();
        setKind(null);
        setTrouble("The sound card went away. What was logged is kept; plug it in and start it again.");
      });
      card.current = input;
      await api().startInput(
        handOver(input.port, [input.port]),
        input.sampleRateHz,
        input.channelCount,
        options.nominalHz,
        onResult({ kind: "sound card", name: input.name }),
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
    }
  };

  const measureFile = async (file: File) => {
    await stop();
    setKind("file");
    setProgress(0);
    try {
      const result = await api().measureFile(file, options.nominalHz, callback(setProgress));
      if (result) setMeasured(measuredFile(result));
      else setKind(null);
    } catch (error) {
      setKind(null);
      setTrouble(`${file.name}: ${(error as Error).message}`);
    } finally {
      setProgress(null);
    }
  };

  const keepPractice = async (changed: Partial<KeptPractice>) => {
    if (!kept.current) return;
    kept.current = { ...kept.current, ...changed };
    await saveDraft(keptId, kept.current);
  };

  return {
    kind,
    live,
    measured,
    spectrum,
    trouble,
    progress,
    practice,
    speedStrip,
    flutterStrip,
    marks,
    dismissTrouble: () => setTrouble(null),
    startPractice,
    startSoundCard,
    measureFile,
    stop,
    wantFlutter,
    /** How the practice machine of this job came in, if it was played before. */
    keptCondition: async () => ((await readDraft(keptId)) as KeptPractice | undefined)?.conditionId,
    cancelFile: () => void api().cancelFile(),
    /** Turns the practice machine's slot. */
    turnPractice: async (turns: number) => {
      const state = await api().turnPractice(turns);
      setPractice((p) => p && { ...p, ...state });
      await keepPractice({ slotTurns: state.slotTurns });
    },
    /** Says that a turn was logged just now. */
    markTurn: async () => {
      setPractice((p) => p && { ...p, loggedTurns: p.slotTurns });
      if (practice) await keepPractice({ loggedTurns: practice.slotTurns });
      if (live) setMarks((m) => [...m, live.seconds]);
      if (kind && kind !== "file") await api().mark();
    },
  };
}

export type ListenerState = ReturnType<typeof useListener>;
