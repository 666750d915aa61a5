import type { PlaybackNow, PlayingTone } from "@/core/playback/playback-now";

/** For a number of one tone of a tape: that it follows a turn, while it is that tone that plays. */
export const heardFrom = (
  { playing }: PlaybackNow,
  isThat: (playing: PlayingTone) => boolean,
): { from?: string } =>
  playing !== null && isThat(playing) ? { from: `${playing.frequencyHz} Hz of the tape` } : {};
