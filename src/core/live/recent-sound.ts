import type { Samples } from "@/core/dsp/signal";

/** The last seconds of a live source, kept so that a logged reading can be backed by what was heard. */
export class RecentSound {
  private readonly channels: Float32Array[];
  private written = 0;

  constructor(
    readonly sampleRateHz: number,
    channelCount: number,
    seconds: number,
  ) {
    const frames = Math.max(0, Math.round(seconds * sampleRateHz));
    this.channels = Array.from({ length: Math.min(2, channelCount) }, () => new Float32Array(frames));
  }

  get seconds(): number {
    return Math.min(this.written, this.channels[0].length) / this.sampleRateHz;
  }

  push(block: Samples[]): void {
    const size = this.channels[0].length;
    if (size === 0) return;
    const skip = Math.max(0, block[0].length - size);
    this.channels.forEach((kept, c) => {
      const samples = block[c].subarray(skip);
      const at = (this.written + skip) % size;
      const first = Math.min(samples.length, size - at);
      kept.set(samples.subarray(0, first), at);
      kept.set(samples.subarray(first), 0);
    });
    this.written += block[0].length;
  }

  /** What is kept, oldest first, or the last of it. */
  contents(seconds = Infinity): Float32Array[] {
    const size = this.channels[0].length;
    const frames = Math.min(this.written, size, Math.round(seconds * this.sampleRateHz));
    const at = size === 0 ? 0 : (this.written - frames) % size;
    return this.channels.map((kept) => {
      if (at + frames <= size) return kept.slice(at, at + frames);
      const ordered = new Float32Array(frames);
      ordered.set(kept.subarray(at));
      ordered.set(kept.subarray(0, at + frames - size), size - at);
      return ordered;
    });
  }
}
