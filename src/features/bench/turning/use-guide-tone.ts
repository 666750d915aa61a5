import { useEffect, useRef, useState } from "react";
import { GuideTone } from "@/audio/guide-tone";
import { limitFor, unitOf } from "@/core/alignment/registry";
import type { Machine } from "@/core/records/machine";
import type { Advised } from "@/core/stations/advised";
import type { Unit } from "@/core/text/units";
import { areOneDevice } from "@/audio/sound-devices";
import { readSettings } from "@/storage/settings";
import { useLatest } from "@/ui/use-latest";

/** From where to where the tone goes, where the machine has no limit for the number. */
const USUAL_WINDOW: Record<Unit, number> = {
  "%": 0.5,
  "°": 30,
  dB: 1,
  dBFS: 1,
  "′": 1,
  s: 1,
  kHz: 1,
  "/min": 1,
};
/** The tolerance is where the work ends, not where the ear should be content. */
const SHARE_OF_LIMIT = 0.2;

/**
 * The guide tone of the bench: off until it is asked for, follows the distance of the number that is set from its target.
 * `warning` is set when the tone would come back through the input that is measured.
 * @param advised what is to be turned, and by which number; null while nothing is heard
 * @param listening a sound card is measured
 */
export function useGuideTone(advised: Advised | null, machine: Machine, listening: boolean) {
  const number = advised?.toSet ?? null;
  const limit = number && (limitFor(machine, number.quantity) ?? USUAL_WINDOW[unitOf(number.quantity)]);
  const window = (limit ?? 1) * SHARE_OF_LIMIT;
  const distance = advised && number && number.value !== null ? number.value - advised.target : null;
  const tone = useRef<GuideTone | null>(null);
  /** Each press is another: what was waited for may have been switched off meanwhile. */
  const pressed = useRef(0);
  const [on, setOn] = useState(false);
  const [warning, setWarning] = useState<string | null>(null);
  const follow = useLatest(() => tone.current?.follow(distance, window));
  useEffect(follow, [follow, on, distance, window]);
  useEffect(
    () => () => {
      pressed.current++;
      tone.current?.stop();
      tone.current = null;
    },
    [],
  );
  const toggle = async () => {
    const mine = ++pressed.current;
    if (on) {
      tone.current?.stop();
      tone.current = null;
      setWarning(null);
      return setOn(false);
    }
    setOn(true);
    const { inputId, outputId } = await readSettings();
    const isLoop = listening && (await areOneDevice(inputId, outputId));
    if (pressed.current !== mine) return;
    tone.current = new GuideTone(outputId);
    follow();
    if (isLoop)
      setWarning(
        "The guide tone plays on the device that is measured. Use headphones, and keep that output away from the deck and the input.",
      );
  };
  return { on, toggle: () => void toggle(), warning };
}
