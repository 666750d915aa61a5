import type { Reading } from "@/core/records/reading";

/** The one of a channel; the first where none is named so, as with one channel or an adjuster of both. */
export const ownChannel = <C extends { channel: string }>(
  channels: readonly C[],
  channel: string | null | undefined,
): C | undefined => channels.find((one) => one.channel === channel) ?? channels.at(0);

/**
 * Readings of levels as they were when the tone that plays stood elsewhere; those of both channels are differences.
 * @param now levels of each channel, dB, @param before the same before
 */
export function shiftedBack(
  readings: Reading[],
  now: readonly number[],
  before: readonly number[],
): Reading[] {
  const moved = now.map((level, c) => before[c] - level);
  const [left, right = 0] = moved;
  return readings.map((reading) => {
    const { channel } = reading.context;
    const isDifference = channel === "both" && moved.length > 1;
    const shift = isDifference ? left - right : channel === "right" ? right : left;
    return { ...reading, value: reading.value + shift };
  });
}

/** What the readings of a machine's channels are named. */
export const channelNames = (count: 1 | 2): readonly string[] => (count === 1 ? ["both"] : ["left", "right"]);

/** What was heard on the first or second channel: by its name, since a channel of which nothing can be said is left out. */
export const heardOn = <C extends { channel: string }>(all: readonly C[], c: number): C | undefined =>
  all.find(({ channel }) => (c === 0 ? channel === "left" || channel === "mono" : channel === "right"));
