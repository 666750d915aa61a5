import { useEffect, useRef } from "react";
import type { Circumstances } from "@/core/records/reading";
import type { ListenerState } from "./listening/use-listener";

/** Another direction, another head or another blank tape plays, or something was switched: the tones that were heard live are not its own. */
export function useForgetTones(
  { clearPlayback, forgetQuiet }: ListenerState,
  { side, head, recordingOn, switchedOn = [], noiseOf }: Circumstances,
): void {
  const key = `${head} ${recordingOn} ${switchedOn.join()}`;
  const heard = useRef({ key, side });
  useEffect(() => {
    const before = heard.current;
    if (before.key === key && before.side === side) return;
    heard.current = { key, side };
    clearPlayback(before.key === key);
  });
  const quiet = useRef(noiseOf);
  useEffect(() => {
    if (quiet.current === noiseOf) return;
    quiet.current = noiseOf;
    forgetQuiet();
  });
}
