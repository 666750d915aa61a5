import { HighPass } from "@/core/dsp/filter-section";
import { median } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";

interface HighPeaksOptions {
  /** What is looked at lies above. */
  aboveHz: number;
  /** High-pass filters of second order, one after the other. */
  sections: number;
  frameSeconds: number;
  /** What is usual is the median of so many frames before, asked anew every so many, and not told before so many. */
  usualFrames: number;
  lookEveryFrames: number;
  leastFrames: number;
}

/**
 * The highest magnitude of each frame above a frequency, with what is usual of the frames before it: bursts fill few of
 * them, so that the median is of what lies between. Push blocks of one channel, full scale = ±1.
 */
export class HighPeaks {
  private readonly highPass: HighPass;
  private readonly frame: number;
  private filled = 0;
  private peak = 0;
  private readonly before: number[] = [];
  private usual = Infinity;
  private sinceLooked = 0;

  /** @param onFrame told each frame; `usual` is null while it is not known */
  constructor(
    sampleRateHz: number,
    private readonly options: HighPeaksOptions,
    private readonly onFrame: (peak: number, usual: number | null) => void,
  ) {
    const { aboveHz, sections, frameSeconds } = options;
    this.highPass = new HighPass(aboveHz, sections, sampleRateHz);
    this.frame = Math.round(frameSeconds * sampleRateHz);
  }

  push(x: Samples): void {
    const high = this.highPass.push(x);
    for (let i = 0; i < high.length; i++) {
      this.peak = Math.max(this.peak, Math.abs(high[i]));
      if (++this.filled === this.frame) this.take();
    }
  }

  private take(): void {
    const { peak, before } = this;
    const { usualFrames, lookEveryFrames, leastFrames } = this.options;
    [this.filled, this.peak] = [0, 0];
    this.onFrame(peak, before.length >= leastFrames ? this.usual : null);
    before.push(peak);
    if (before.length > usualFrames) before.shift();
    if (++this.sinceLooked >= lookEveryFrames) {
      this.usual = median(before);
      this.sinceLooked = 0;
    }
  }
}
