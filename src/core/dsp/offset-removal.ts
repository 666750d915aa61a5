import type { Samples } from "./signal";

/** An offset that is less is none, full scale = 1: its copy would cost more than it does. */
const LEAST = 5e-4;
/** How fast the offset is followed. */
const SECONDS = 2;

/** Takes a steady offset away from a channel, pushed in blocks: beside it, a weak tone is taken for none. */
export class OffsetRemoval {
  private offset: number | null = null;
  private heard = 0;

  constructor(private readonly sampleRateHz: number) {}

  /** The block without the offset; the same block where there is none. */
  push(block: Samples): Samples {
    if (block.length === 0) return block;
    let sum = 0;
    for (let i = 0; i < block.length; i++) sum += block[i];
    const mean = sum / block.length;
    const before = this.offset ?? mean;
    this.heard += block.length;
    // the mean of everything at first: a short block of a low tone has a mean of its own
    const share = Math.max(
      block.length / this.heard,
      1 - Math.exp(-block.length / (SECONDS * this.sampleRateHz)),
    );
    this.offset = before + share * (mean - before);
    if (Math.abs(before) < LEAST && Math.abs(this.offset) < LEAST) return block;
    const step = (this.offset - before) / block.length;
    return Float32Array.from(block, (value, i) => value - before - i * step);
  }
}
