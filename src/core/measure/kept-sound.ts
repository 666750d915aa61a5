import type { Samples } from "@/core/dsp/signal";
import { blockWithin } from "./block-within";
import { SoundRooms } from "./sound-rooms";

/** At what rate it is kept, and when its first sample was, on the clock of the recording. */
export interface KeptClock {
  sampleRateHz: number;
  startSeconds: number;
}

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

  /**
   * Of one or two channels, as many as there are.
   * @param rooms where it is kept, and others after it; its own unless told otherwise
   */
  constructor(
    private readonly sampleRateHz: number,
    private readonly channelCount: number,
    { fromSeconds, toSeconds }: { fromSeconds: number; toSeconds: number },
    private readonly rooms = new SoundRooms(),
  ) {
    this.from = Math.max(0, Math.round(fromSeconds * sampleRateHz));
    this.to = Math.max(this.from, Math.round(toSeconds * sampleRateHz));
  }

  /** @param at which frame of the recording the block begins with */
  push(block: readonly Samples[], at: number): void {
    const { from, to, rooms } = this;
    const part = blockWithin(block, at, { from, to });
    if (!part) return;
    const before = part.first - from;
    // what came before it was heard of is silence
    this.channels ??= Array.from({ length: Math.min(2, this.channelCount) }, () =>
      rooms.take(to - from).fill(0, 0, before),
    );
    this.channels.forEach((kept, c) => kept.set(part.channels[c], before));
    this.taken = part.last - from;
  }

  /**
   * What came of it, an array for each channel and none at all when nothing did, for as long as it is measured: it is not
   * kept any more then, and what it was kept in is another's.
   */
  measure<T>(measured: (channels: Float32Array[], clock: KeptClock) => T): T {
    const { channels, taken, rooms, sampleRateHz } = this;
    this.channels = null;
    const clock = { sampleRateHz, startSeconds: this.from / sampleRateHz };
    const result = measured(channels?.map((x) => x.subarray(0, taken)) ?? [], clock);
    channels?.forEach((room) => rooms.giveBack(room));
    return result;
  }
}
