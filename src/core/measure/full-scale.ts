import { largestMagnitude } from "@/core/dsp/largest-magnitude";
import type { Samples } from "@/core/dsp/signal";

/** Full scale of 16-bit sound: every converter that clips reaches at least this. */
export const FULL_SCALE = 1 - 1 / 32768;
/** So many samples at full scale in a row are no chance. */
export const CLIPPED_RUN = 3;

/** Counts the places of a stream where it stands at full scale: the input clips there. Blocks of any length. */
export class FullScaleRuns {
  count = 0;
  private run = 0;

  push(block: Samples): void {
    if (largestMagnitude(block) < FULL_SCALE) {
      this.run = 0;
      return;
    }
    for (let i = 0; i < block.length; i++) {
      this.run = Math.abs(block[i]) >= FULL_SCALE ? this.run + 1 : 0;
      if (this.run === CLIPPED_RUN) this.count++;
    }
  }
}
