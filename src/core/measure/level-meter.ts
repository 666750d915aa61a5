import { amplitudeDb } from "@/core/dsp/decibels";
import { TruePeak } from "@/core/dsp/true-peak";
import type { Samples } from "@/core/dsp/signal";
import { CLIPPED_RUN, FULL_SCALE } from "./full-scale";

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

/** Level of one channel since the last `reset`. Blocks of any length. */
export class LevelMeter {
  private readonly true = new TruePeak();
  private peak = 0;
  private sum = 0;
  private squares = 0;
  private count = 0;
  private run = 0;
  private clipped = 0;

  push(block: Samples): void {
    // locals: a field that is written for each sample is many times slower
    let peak = this.peak;
    let sum = 0;
    let squares = 0;
    let run = this.run;
    let clipped = this.clipped;
    for (let i = 0; i < block.length; i++) {
      const v = block[i];
      const magnitude = Math.abs(v);
      if (magnitude > peak) peak = magnitude;
      if (magnitude < FULL_SCALE) run = 0;
      else if (++run === CLIPPED_RUN) clipped += CLIPPED_RUN;
      else if (run > CLIPPED_RUN) clipped++;
      sum += v;
      squares += v * v;
    }
    this.peak = peak;
    this.sum += sum;
    this.squares += squares;
    this.run = run;
    this.clipped = clipped;
    this.count += block.length;
    this.true.push(block);
  }

  get level(): Level {
    const n = Math.max(1, this.count);
    return {
      peakDbfs: amplitudeDb(this.peak),
      truePeakDbfs: amplitudeDb(this.true.peak),
      rmsDbfs: amplitudeDb(Math.sqrt(this.squares / n)),
      dcPercent: (100 * this.sum) / n,
      clippedSamples: this.clipped,
    };
  }

  reset(): void {
    this.true.peak = this.peak = this.sum = this.squares = this.count = this.clipped = 0;
  }
}
