import { useEffect } from "react";
import type { Circumstances } from "@/core/records/reading";
import type { ListenerState } from "./listening/use-listener";

/**
 * Another direction, another head or another blank tape plays, or something was switched: the tones that were heard live are not its own.
 * What they were heard for is kept with the source, so that a page that is opened again over it changes nothing.
 * @param known whether the circumstances as they were left are read
 */
export function useForgetTones(
  { clearPlayback, forgetQuiet, heardFor }: ListenerState,
  { side, head, recordingOn, switchedOn = [], noiseOf }: Circumstances,
  known: boolean,
): void {
  const key = `${head} ${recordingOn} ${switchedOn.join()}`;
  useEffect(() => {
    if (!known) return;
    const before = heardFor.current;
    heardFor.current = { key, side, noiseOf };
    if (before === null) return;
    if (before.key !== key || before.side !== side) clearPlayback(before.key === key);
    if (before.noiseOf !== noiseOf) forgetQuiet();
  });
}
