import type { PlayingTone } from "@/core/playback/playback-now";

/**
 * What a number of one tone of a tape is heard from, while it is that tone that plays: it follows a turn then.
 * @param isThat whether the tone that plays is the number's own
 */
export const heardFrom = (playing: PlayingTone | null, isThat: boolean): string | undefined =>
  playing && isThat ? `${playing.frequencyHz} Hz of the tape` : undefined;
