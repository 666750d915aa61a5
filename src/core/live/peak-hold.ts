import { median } from "@/core/dsp/quantile";

/** A second: what is louder for less is wander, not a peak. */
const FRAMES = 10;
const MOVED_DB = 0.5;

/**
 * The loudest that a level has stood for a second. A median over that second keeps drop-outs and short wander from
 * counting; what went by faster was not a place where a screw could be left.
 */
export class PeakHold {
  private held = -Infinity;
  private lowest = Infinity;

  /** Highest second so far, in the unit that was added; −∞ before there was a whole one. */
  get level(): number {
    return this.held;
  }

  /** The level has been higher and lower: only then is the highest a peak, not just where it stands. */
  get hasMoved(): boolean {
    return this.held - this.lowest > MOVED_DB;
  }

  clear(): void {
    this.held = -Infinity;
    this.lowest = Infinity;
  }

  /** @param levels of the last seconds, a tenth of a second each; may overlap with what was added before */
  add(levels: ArrayLike<number>): void {
    const all = Array.from(levels);
    for (let i = FRAMES; i <= all.length; i++) {
      const level = median(all.slice(i - FRAMES, i));
      this.held = Math.max(this.held, level);
      this.lowest = Math.min(this.lowest, level);
    }
  }
}
