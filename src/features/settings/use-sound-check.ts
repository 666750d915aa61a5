import { useEffect, useRef, useState } from "react";
import { openSoundCard, type SoundCardInput } from "@/audio/sound-card";
import type { ListeningResult } from "@/core/live/listening-result";
import type { SignalReport } from "@/core/measure/signal-findings";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { callback, handOver, startListener, type Listener } from "@/workers/start-worker";

const KEPT_SECONDS = 12;

/** The sound card by itself, without a job: its signal, and the frequency of a tone that is fed to it. */
export function useSoundCheck() {
  const listener = useRef<Listener | null>(null);
  const card = useRef<SoundCardInput | null>(null);
  const [input, setInput] = useState<Omit<SoundCardInput, "port" | "stop"> | null>(null);
  const [report, setReport] = useState<SignalReport | null>(null);
  const [live, setLive] = useState<ListeningResult | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);

  const stop = () => {
    card.current?.stop();
    card.current = null;
    listener.current?.end();
    listener.current = null;
    setInput(null);
    setReport(null);
    setLive(null);
  };
  useEffect(
    () => () => {
      card.current?.stop();
      listener.current?.end();
    },
    [],
  );

  /** @param toneHz the tone that its clock is compared with */
  const start = async (deviceId: string | null, toneHz: number): Promise<void> => {
    stop();
    setTrouble(null);
    try {
      const opened = await openSoundCard(deviceId, () => {
        stop();
        setTrouble("The sound card went away. Plug it in and start it again.");
      });
      card.current = opened;
      const { port } = opened;
      setInput(opened);
      listener.current = startListener();
      await listener.current.api.startInput(
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
          setLive(result);
          if (result.check) setReport(result.check);
        }),
        callback(() => setTrouble("Nothing has come from the sound card for a while. Start it again.")),
      );
    } catch (error) {
      stop();
      setTrouble((error as Error).message);
    }
  };

  return {
    input,
    report,
    live,
    trouble,
    start,
    stop,
    findSides: () => listener.current!.api.findSides(),
    loopBack: (toneHz: number) => listener.current!.api.loopBack(toneHz),
  };
}
