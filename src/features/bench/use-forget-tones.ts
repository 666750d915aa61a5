import { useEffect } from "react";
import type { Circumstances } from "@/core/records/reading";
import type { ListenerState } from "./listening/use-listener";

/**
 * Another direction, another head or another blank tape plays, or something was switched: the tones that were heard live are not its own.
 * What they were heard for is kept with the source, so that a page that is opened again over it changes nothing.
 * @param known whether the circumstances as they were left are read
 */
export function useForgetTones(
  { playsFor }: ListenerState,
  { side, head, recordingOn, switchedOn = [], noiseOf }: Circumstances,
  known: boolean,
): void {
  const plays = `${head} ${recordingOn} ${switchedOn.join()}`;
  useEffect(() => {
    if (known) playsFor({ plays, side, noiseOf });
  }, [known, playsFor, plays, side, noiseOf]);
}
