import { useEffect, useRef, useState } from "react";
import { playBlocks, type Playing } from "@/audio/sound-player";
import { amplitudeOf } from "@/core/dsp/decibels";
import { Sessions } from "@/core/live/session";
import type { Sequence } from "@/core/signals/sequence";
import { readSettings } from "@/storage/settings";
import { callback, handOver, startPlayer } from "@/workers/start-worker";

const RATE_HZ = 48_000;

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
    const finish = (why: string | null) => {
      if (session.closed) return;
      stop();
      setTrouble(why);
    };
    const player = startPlayer();
    session.own(player.end);
    player.died.catch(({ message }: Error) => finish(message));
    const { port1, port2 } = new MessageChannel();
    try {
      const progress = callback((done: number) => !session.closed && setShare(done));
      await player.api.open(sequence, RATE_HZ, handOver(port1, [port1]), progress);
      const { outputId } = await readSettings();
      if (session.closed) return;
      setSequenceId(sequence.id);
      const begun = await playBlocks(port2, RATE_HZ, outputId, amplitudeOf(levelDb), (late) =>
        finish(
          late > 0
            ? `${late} samples came too late and were silent: the computer was too busy. Play it again, or export it as a file.`
            : null,
        ),
      );
      // of two that were asked for one after the other only the latter sounds
      session.own(begun.stop);
      if (!session.closed) playing.current = begun;
    } catch (error) {
      finish((error as Error).message);
    }
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
