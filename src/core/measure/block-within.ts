import type { Samples } from "@/core/dsp/signal";

/** Part of a block of a recording. */
export interface BlockPart {
  channels: Samples[];
  /** Its first frame, of the recording. */
  first: number;
  /** One frame beyond its last. */
  last: number;
}

/**
 * What of a block lies between two frames of a recording; null for nothing.
 * @param at which frame of the recording the block begins with
 * @param to one frame beyond the last
 */
export function blockWithin(
  block: readonly Samples[],
  at: number,
  { from, to }: { from: number; to: number },
): BlockPart | null {
  const [first, last] = [Math.max(from, at), Math.min(to, at + block[0].length)];
  if (first >= last) return null;
  return { channels: block.map((x) => x.subarray(first - at, last - at)), first, last };
}
