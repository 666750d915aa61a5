import { useCallback, useEffect, useState } from "react";
import { Sessions } from "@/core/live/session";
import type { LoopBack } from "@/core/live/loop-back";
import { single } from "@/core/signals/presets";
import { changeCalibration } from "@/storage/calibrations";
import { playSequence } from "../sound/play-sequence";

const TONE_HZ = 1000;
const TONE_SECONDS = 5;
const SILENT_SECONDS = 3;
const FADE_SECONDS = 0.01;

/**
 * Plays a tone and silence through the output, measures what the input hears of them, and keeps it for that input. It
 * belongs to the input that it was begun with, and to somebody who is here.
 */
export function useLoopBack(
  input: { deviceId: string; name: string } | null,
  measure: (toneHz: number) => Promise<LoopBack>,
) {
  const [sessions] = useState(() => new Sessions());
  const [share, setShare] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);

  const stop = useCallback(
    (why: string | null) => {
      void sessions.end();
      setShare(null);
      setTrouble(why);
    },
    [sessions],
  );
  useEffect(
    () => () => {
      if (sessions.current) stop("The input was changed. Measure again.");
    },
    [input, sessions, stop],
  );

  const start = async (): Promise<void> => {
    if (!input) return;
    const session = sessions.begin();
    setTrouble(null);
    setShare(0);
    const keep = async () => {
      try {
        const loopBack = await measure(TONE_HZ);
        if (session.closed) return;
        await changeCalibration(input.deviceId, input.name, {
          loopBack: { ...loopBack, at: new Date().toISOString() },
        });
        if (!session.closed) stop(null);
      } catch (error) {
        if (!session.closed) stop((error as Error).message);
      }
    };
    const tone = single(
      { kind: "sine", channels: "both", frequencyHz: TONE_HZ, levelDb: -6, seconds: TONE_SECONDS },
      FADE_SECONDS,
    );
    await playSequence(session, tone, 1, {
      onProgress: (done) => setShare(0.6 * done),
      onEnd: (why) => {
        if (why) return stop(why);
        setShare(0.7);
        const silent = setTimeout(() => void keep(), 1000 * SILENT_SECONDS);
        session.own(() => clearTimeout(silent));
      },
    });
  };

  return { share, trouble, start };
}
