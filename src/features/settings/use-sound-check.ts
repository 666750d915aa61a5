import { useEffect, useRef, useState } from "react";
import { INPUT_LOST, openSoundCard, type SoundCardInput } from "@/audio/sound-card";
import type { ListeningResult } from "@/core/live/listening-result";
import { Sessions } from "@/core/live/session";
import type { SignalReport } from "@/core/measure/signal-findings";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { callback, handOver, startListener, type Listener } from "@/workers/start-worker";

const KEPT_SECONDS = 12;

/** The sound card by itself, without a job: its signal, and the frequency of a tone that is fed to it. */
export function useSoundCheck() {
  const [sessions] = useState(() => new Sessions());
  const listener = useRef<Listener | null>(null);
  const [input, setInput] = useState<Omit<SoundCardInput, "port" | "stop"> | null>(null);
  const [report, setReport] = useState<SignalReport | null>(null);
  const [live, setLive] = useState<ListeningResult | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => () => void sessions.end(), [sessions]);

  const forget = () => {
    listener.current = null;
    setInput(null);
    setReport(null);
    setLive(null);
  };
  const stop = () => {
    void sessions.end();
    forget();
  };

  /** @param toneHz the tone that its clock is compared with */
  const start = async (deviceId: string | null, toneHz: number): Promise<void> => {
    const session = sessions.begin();
    forget();
    setTrouble(null);
    const fail = (sentence: string) => {
      if (session.closed) return;
      stop();
      setTrouble(sentence);
    };
    try {
      await sessions.earlierEnded();
      const opened = await openSoundCard(deviceId, fail);
      session.own(() => opened.stop());
      // somebody may have stopped it, or left, while the browser asked whether it may listen
      if (session.closed) return;
      const { port } = opened;
      const mine = startListener();
      session.own(mine.end);
      mine.died.catch(({ message }: Error) => fail(message));
      listener.current = mine;
      setInput(opened);
      await mine.api.startInput(
        handOver(port, [port]),
        { sampleRateHz: opened.sampleRateHz, channelCount: opened.channelCount, clockPpm: 0 },
        {
          tape: {
            ...BUILT_IN_TAPES[0],
            bands: [{ kind: "tone", frequencyHz: toneHz, levelDb: 0, seconds: 36_000 }],
          },
          speedFactor: 1,
          nominalHz: toneHz,
          evidenceSeconds: KEPT_SECONDS,
          tracks: null,
          sequences: [],
        },
        callback((result: ListeningResult) => {
          if (session.closed) return;
          setLive(result);
          if (result.check) setReport(result.check);
        }),
        callback(() => fail(INPUT_LOST.silent)),
      );
    } catch (error) {
      fail((error as Error).message);
    }
  };

  /** What is asked of the worker that listens. @throws Error with a sentence where there is none any more */
  const api = () => {
    if (!listener.current) throw new Error("No input is listened to any more. Start it again.");
    return listener.current.api;
  };

  return {
    input,
    report,
    live,
    trouble,
    start,
    stop,
    findSides: async () => api().findSides(),
    loopBack: async (toneHz: number) => api().loopBack(toneHz),
  };
}
