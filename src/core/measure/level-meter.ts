import { TruePeak } from "@/core/dsp/true-peak";

/** Full scale of 16-bit sound: every converter that clips reaches at least this. */
const CLIPPED_AT = 1 - 1 / 32768;
const CLIPPED_RUN = 3;

export interface Level {
  peakDbfs: number;
  /** Of the waveform between the samples too (ITU-R BS.1770). */
  truePeakDbfs: number;
  /** A full-scale sine reads −3.01. */
  rmsDbfs: number;
  dcPercent: number;
  /** Samples in runs of three or more at full scale. */
  clippedSamples: number;
}

/** Decibels of an amplitude; silence reads −200. */
export const decibels = (amplitude: number): number => 20 * Math.log10(Math.max(amplitude, 1e-10));

/** Level of one channel since the last `reset`. Blocks of any length. */
export class LevelMeter {
  private readonly true = new TruePeak();
  private peak = 0;
  private sum = 0;
  private squares = 0;
  private count = 0;
  private run = 0;
  private clipped = 0;

  push(block: Float64Array | Float32Array): void {
    let { peak, sum, squares, run, clipped } = this;
    for (let i = 0; i < block.length; i++) {
      const v = block[i];
      const magnitude = Math.abs(v);
      if (magnitude > peak) peak = magnitude;
      if (magnitude >= CLIPPED_AT) {
        run++;
        clipped += run === CLIPPED_RUN ? CLIPPED_RUN : run > CLIPPED_RUN ? 1 : 0;
      } else run = 0;
      sum += v;
      squares += v * v;
    }
    Object.assign(this, { peak, sum, squares, run, clipped });
    this.count += block.length;
    this.true.push(block);
  }

  get level(): Level {
    const n = Math.max(1, this.count);
    return {
      peakDbfs: decibels(this.peak),
      truePeakDbfs: decibels(this.true.peak),
      rmsDbfs: decibels(Math.sqrt(this.squares / n)),
      dcPercent: (100 * this.sum) / n,
      clippedSamples: this.clipped,
    };
  }

  reset(): void {
    this.true.peak = this.peak = this.sum = this.squares = this.count = this.clipped = 0;
  }
}
