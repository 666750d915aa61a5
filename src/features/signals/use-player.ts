import { amplitudeOf } from "@/core/dsp/decibels";
import { useEffect, useRef, useState } from "react";
import { playBlocks, type Playing } from "@/audio/sound-player";
import type { Sequence } from "@/core/signals/sequence";
import { readSettings } from "@/storage/settings";
import { callback, handOver, startPlayer, type WorkerOf } from "@/workers/start-worker";
import type { PlayerApi } from "@/workers/player.worker";

const RATE_HZ = 48_000;

/** Plays one sequence at a time through the chosen output. */
export function usePlayer() {
  const player = useRef<WorkerOf<PlayerApi> | null>(null);
  const playing = useRef<Playing | null>(null);
  const [sequenceId, setSequenceId] = useState<string | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);

  const stop = () => {
    playing.current?.stop();
    playing.current = null;
    setSequenceId(null);
    setShare(null);
  };
  useEffect(
    () => () => {
      playing.current?.stop();
      player.current?.end();
      player.current = null;
    },
    [],
  );

  /** @param levelDb attenuation, 0 or below */
  const play = async (sequence: Sequence, levelDb: number): Promise<void> => {
    stop();
    setTrouble(null);
    player.current ??= startPlayer();
    const { port1, port2 } = new MessageChannel();
    try {
      await player.current.api.open(sequence, RATE_HZ, handOver(port1, [port1]), callback(setShare));
      const { outputId } = await readSettings();
      setSequenceId(sequence.id);
      playing.current = await playBlocks(port2, RATE_HZ, outputId, amplitudeOf(levelDb), (late) => {
        playing.current = null;
        setSequenceId(null);
        setShare(null);
        if (late > 0)
          setTrouble(
            `${late} samples came too late and were silent: the computer was too busy. Play it again, or export it as a file.`,
          );
      });
    } catch (error) {
      setTrouble((error as Error).message);
      setSequenceId(null);
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
