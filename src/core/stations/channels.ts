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
