import { median } from "@/core/dsp/quantile";

/** A second: what is louder for less is wander, not a peak. */
const FRAMES = 10;

/**
 * The loudest that a level has stood for a second. A median over that second keeps drop-outs and short wander from
 * counting; what went by faster was not a place where a screw could be left.
 */
export class PeakHold {
  private held = -Infinity;

  /** Highest second so far, in the unit that was added; −∞ before there was a whole one. */
  get level(): number {
    return this.held;
  }

  clear(): void {
    this.held = -Infinity;
  }

  /** @param levels of the last seconds, a tenth of a second each; may overlap with what was added before */
  add(levels: ArrayLike<number>): void {
    const all = Array.from(levels);
    for (let i = FRAMES; i <= all.length; i++)
      this.held = Math.max(this.held, median(all.slice(i - FRAMES, i)));
  }
}
