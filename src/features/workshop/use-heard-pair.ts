import { useEffect, useRef, useState } from "react";
import { SwitchedPlayer } from "@/audio/switched-player";
import { decodeSound } from "@/audio/decode-sound";
import { amplitudeOf } from "@/core/dsp/decibels";
import { fixed } from "@/core/text/number-text";
import { readSettings } from "@/storage/settings";
import type { Recording } from "@/storage/database";
import { startComparison } from "@/workers/start-worker";

/** Plays two half-minutes at once, equally loud, of which one is heard. */
export function useHeardPair() {
  const player = useRef<SwitchedPlayer | null>(null);
  const asked = useRef(0);
  const [heard, setHeard] = useState<0 | 1 | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [says, say] = useState<string | null>(null);
  const stop = () => {
    asked.current++;
    player.current?.stop();
    player.current = null;
    setHeard(null);
  };
  useEffect(
    () => () => {
      asked.current++;
      player.current?.stop();
    },
    [],
  );

  const play = async (pair: readonly [Recording, Recording], first: 0 | 1) => {
    stop();
    const mine = asked.current;
    setTrouble(null);
    try {
      const sounds = await Promise.all(pair.map(({ sound }) => decodeSound(sound)));
      const [a, b] = sounds;
      const meter = startComparison();
      const { loudness, fromSeconds, seconds, samePassage } = await meter.api.pair(a, b).finally(meter.end);
      // somebody stopped it, or began another, meanwhile
      if (asked.current !== mine) return;
      // the louder one is turned down: nothing is driven beyond full scale
      const least = Math.min(...loudness);
      const gains = loudness.map((one) => amplitudeOf(least - one));
      const made = new SwitchedPlayer(
        [
          { ...a, gain: gains[0], fromSeconds: fromSeconds[0] },
          { ...b, gain: gains[1], fromSeconds: fromSeconds[1] },
        ],
        seconds,
      );
      const { outputId } = await readSettings();
      if (asked.current !== mine) return made.stop();
      await made.start(first, outputId).catch((error: unknown) => {
        made.stop();
        throw error;
      });
      if (asked.current !== mine) return made.stop();
      player.current = made;
      setHeard(first);
      say(
        `${fixed(loudness[0] - loudness[1], 1)} LU apart, played equally loud. ${
          samePassage
            ? `${fixed(seconds, 0)} s that both have.`
            : "They do not seem to be the same passage: each is played from its start."
        }`,
      );
    } catch (error) {
      if (asked.current === mine) setTrouble((error as Error).message);
    }
  };
  const hear = (which: 0 | 1) => {
    player.current?.hear(which);
    if (player.current) setHeard(which);
  };
  return { heard, trouble, says, play, hear, stop };
}
