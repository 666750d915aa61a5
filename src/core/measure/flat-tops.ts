import { largestMagnitude } from "@/core/dsp/largest-magnitude";
import type { Samples } from "@/core/dsp/signal";

/** A run of samples this near to each other, relative to the largest, is flat. */
const SAME = 2e-5;
/** Only what is near the largest of all is a top. */
const NEAR_TOP = 0.97;
/** A top that is cut off stays so for at least this share of a period, and so many samples. */
const SHARE_OF_PERIOD = 0.03;
const FEWEST_SAMPLES = 3;
/** Single flat tops may be chance; so many in a piece are not. */
const FEWEST_TOPS = 5;

/**
 * Whether the tops of a tone are cut off, at full scale or below it: its largest samples then stand still for a while.
 * Tones of fewer than some ten samples a period cannot be told.
 */
export class FlatTops {
  private tops = 0;
  private readonly run: number;

  /** @param samplesPerPeriod of the tone */
  constructor(samplesPerPeriod: number) {
    this.run = Math.max(FEWEST_SAMPLES, Math.ceil(SHARE_OF_PERIOD * samplesPerPeriod));
  }

  get found(): boolean {
    return this.tops >= FEWEST_TOPS;
  }

  look(samples: Samples): void {
    const largest = largestMagnitude(samples);
    if (largest === 0) return;
    let [highest, lowest] = [0, 0];
    for (let i = 0; i < samples.length; i++) {
      if (samples[i] > highest) highest = samples[i];
      else if (samples[i] < lowest) lowest = samples[i];
    }
    // each side by its own top: a stage that clips may clip one of them alone
    const [top, bottom] = [NEAR_TOP * highest, NEAR_TOP * lowest];
    const same = SAME * largest;
    const { run } = this;
    let flat = 1;
    for (let i = 1; i < samples.length; i++) {
      const isTop = samples[i] > top || samples[i] < bottom;
      const still = isTop && Math.abs(samples[i] - samples[i - 1]) <= same;
      flat = still ? flat + 1 : 1;
      if (flat === run) this.tops++;
    }
  }
}
