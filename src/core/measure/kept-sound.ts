import type { Samples } from "@/core/dsp/signal";

/**
 * Keeps what lies between two frames of a recording that is pushed in blocks of any length; in single precision, which is
 * what files hold and sound cards give, and half as much.
 */
export class KeptSound {
  readonly from: number;
  /** One frame beyond the last. */
  readonly to: number;
  private channels: Float32Array[] | null = null;
  private taken = 0;

  /** Of one or two channels, as many as there are. */
  constructor(
    sampleRateHz: number,
    private readonly channelCount: number,
    { fromSeconds, toSeconds }: { fromSeconds: number; toSeconds: number },
  ) {
    this.from = Math.max(0, Math.round(fromSeconds * sampleRateHz));
    this.to = Math.max(this.from, Math.round(toSeconds * sampleRateHz));
  }

  /** @param at which frame of the recording the block begins with */
  push(block: readonly Samples[], at: number): void {
    const { from, to } = this;
    const [first, last] = [Math.max(from, at), Math.min(to, at + block[0].length)];
    if (first >= last) return;
    this.channels ??= Array.from(
      { length: Math.min(2, this.channelCount) },
      () => new Float32Array(to - from),
    );
    this.channels.forEach((kept, c) => kept.set(block[c].subarray(first - at, last - at), first - from));
    this.taken = last - from;
  }

  /** What came of it, none of it when nothing did; it is not kept any more then. */
  give(): Float32Array[] {
    const { channels, taken } = this;
    this.channels = null;
    return channels?.map((x) => x.subarray(0, taken)) ?? [];
  }
}
