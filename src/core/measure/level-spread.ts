import type { Samples } from "@/core/dsp/signal";

const PARTS_SECONDS = 0.1;

/** How far the RMS level of a sound may be from that of one that goes on for ever like it, by how its parts differ. */
export class LevelSpread {
  private readonly size: number;
  private readonly powers: number[] = [];
  private sum = 0;
  private count = 0;

  constructor(sampleRateHz: number) {
    this.size = Math.round(PARTS_SECONDS * sampleRateHz);
  }

  push(block: Samples): void {
    for (let i = 0; i < block.length; i++) {
      this.sum += block[i] * block[i];
      if (++this.count < this.size) continue;
      this.powers.push(this.sum / this.count);
      this.sum = this.count = 0;
    }
  }

  /** ± at 95 %, dB; null for silence and for less than a fifth of a second. */
  get uncertaintyDb(): number | null {
    const { powers } = this;
    const mean = powers.reduce((a, b) => a + b, 0) / powers.length;
    if (powers.length < 2 || !(mean > 0)) return null;
    const variance = powers.reduce((sum, power) => sum + (power - mean) ** 2, 0) / (powers.length - 1);
    return (2 * 4.343 * Math.sqrt(variance / powers.length)) / mean;
  }
}
