import { useEffect, useRef, useState } from "react";
import { SwitchedPlayer } from "@/audio/switched-player";
import { decodeSound } from "@/audio/decode-sound";
import { amplitudeOf } from "@/core/dsp/decibels";
import { fixed } from "@/core/text/number-text";
import { loudness } from "@/core/measure/loudness";
import { SAME_LIKENESS, samePassage } from "@/core/measure/same-passage";
import type { Recording } from "@/storage/database";

const LEAST_SECONDS = 3;

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
  useEffect(() => () => player.current?.stop(), []);

  const play = async (pair: readonly [Recording, Recording], first: 0 | 1) => {
    stop();
    const mine = asked.current;
    setTrouble(null);
    try {
      const sounds = await Promise.all(pair.map(({ sound }) => decodeSound(sound)));
      const [a, b] = sounds;
      const loud = sounds.map(({ channels, sampleRateHz }) => loudness(channels, sampleRateHz));
      if (loud.some((one) => !Number.isFinite(one))) throw new Error("One of them is silent: keep it again.");
      const lies =
        a.sampleRateHz === b.sampleRateHz ? samePassage(a.channels, b.channels, a.sampleRateHz) : null;
      const same = lies !== null && lies.likeness > SAME_LIKENESS;
      const later = same ? lies.laterSeconds : 0;
      const [fromA, fromB] = [Math.max(0, later), Math.max(0, -later)];
      const length = ({ channels: [x], sampleRateHz }: typeof a) => x.length / sampleRateHz;
      const seconds = Math.min(length(a) - fromA, length(b) - fromB);
      if (seconds < LEAST_SECONDS)
        throw new Error("They have less than three seconds in common: keep longer ones.");
      // the louder one is turned down: nothing is driven beyond full scale
      const least = Math.min(...loud);
      const gains = loud.map((one) => amplitudeOf(least - one));
      const made = new SwitchedPlayer(
        [
          { ...a, gain: gains[0], fromSeconds: fromA },
          { ...b, gain: gains[1], fromSeconds: fromB },
        ],
        seconds,
      );
      await made.start(first).catch((error: unknown) => {
        made.stop();
        throw error;
      });
      // somebody stopped it, or began another, meanwhile
      if (asked.current !== mine) return made.stop();
      player.current = made;
      setHeard(first);
      say(
        `${fixed(loud[0] - loud[1], 1)} LU apart, played equally loud. ${
          same
            ? `${fixed(seconds, 0)} s that both have.`
            : "They do not seem to be the same passage: each is played from its start."
        }`,
      );
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  const hear = (which: 0 | 1) => {
    player.current?.hear(which);
    if (player.current) setHeard(which);
  };
  return { heard, trouble, says, play, hear, stop };
}
