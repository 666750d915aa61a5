import { useEffect, useRef, useState } from "react";
import { GuideTone } from "@/audio/guide-tone";
import { readSettings } from "@/storage/settings";

/**
 * The guide tone of the bench: off until it is asked for, follows the reading's distance from its target.
 * `warning` is set when the tone would come back through the input that is measured.
 */
export function useGuideTone(distance: number | null, window: number, listening: boolean) {
  const tone = useRef<GuideTone | null>(null);
  const [on, setOn] = useState(false);
  const [warning, setWarning] = useState<string | null>(null);
  useEffect(() => {
    tone.current?.follow(distance, window);
  }, [on, distance, window]);
  useEffect(
    () => () => {
      tone.current?.stop();
      tone.current = null;
    },
    [],
  );
  const toggle = async () => {
    if (tone.current) {
      tone.current.stop();
      tone.current = null;
      setWarning(null);
      return setOn(false);
    }
    tone.current = new GuideTone();
    setOn(true);
    const { inputId, outputId } = await readSettings();
    if (listening && inputId === outputId)
      setWarning(
        "The guide tone plays on the same device that is measured. Listen in headphones, and keep that output away from the deck and the input.",
      );
  };
  return { on, toggle: () => void toggle(), warning };
}
