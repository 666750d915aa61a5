import { useEffect, useRef, useState } from "react";
import type { Playing } from "@/audio/sound-player";
import { amplitudeOf } from "@/core/dsp/decibels";
import { Sessions } from "@/core/live/session";
import type { Sequence } from "@/core/signals/sequence";
import { playSequence } from "../sound/play-sequence";

/** Plays one sequence at a time through the chosen output. */
export function usePlayer() {
  const [sessions] = useState(() => new Sessions());
  const playing = useRef<Playing | null>(null);
  const [sequenceId, setSequenceId] = useState<string | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => () => void sessions.end(), [sessions]);

  const forget = () => {
    playing.current = null;
    setSequenceId(null);
    setShare(null);
  };
  const stop = () => {
    void sessions.end();
    forget();
  };

  /** @param levelDb attenuation, 0 or below */
  const play = async (sequence: Sequence, levelDb: number): Promise<void> => {
    const session = sessions.begin();
    forget();
    setTrouble(null);
    setSequenceId(sequence.id);
    const begun = await playSequence(session, sequence, amplitudeOf(levelDb), {
      onProgress: setShare,
      onEnd: (why) => {
        stop();
        setTrouble(why);
      },
    });
    if (begun) playing.current = begun;
  };

  return {
    playingId: sequenceId,
    share,
    trouble,
    play,
    stop,
    setLevel: (levelDb: number) => playing.current?.setGain(amplitudeOf(levelDb)),
  };
}
