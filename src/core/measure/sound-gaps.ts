/** Fewer zeros than this can be sound: a tone's crossing, or a quiet passage of few bits. */
const SHORTEST_HOLE = 48;
const LONGEST_HOLE = 48_000;
const LOUD = 1e-3;
/** An input stutters while it starts; nothing is measured by then. */
const STARTING_SAMPLES = 96_000;

/**
 * Finds holes that a lost block leaves in the sound: stretches of exact zeros on every channel at once, with
 * sound right before and right after. The first two seconds of a source are let pass.
 */
export class SoundGaps {
  count = 0;
  missingSamples = 0;
  /** Where the latest hole ended, in samples since the start. */
  latestAt = 0;
  private zeros = 0;
  private loudBefore = false;
  private last = 0;
  private heard = 0;

  push(block: Array<Float64Array | Float32Array>): void {
    for (let i = 0; i < block[0].length; i++) {
      let magnitude = 0;
      for (const channel of block) magnitude = Math.max(magnitude, Math.abs(channel[i]));
      if (magnitude === 0) {
        if (this.zeros === 0) this.loudBefore = this.last > LOUD;
        this.zeros++;
        continue;
      }
      const hole = this.zeros >= SHORTEST_HOLE && this.zeros <= LONGEST_HOLE;
      if (hole && this.loudBefore && this.heard + i > STARTING_SAMPLES) {
        this.count++;
        this.missingSamples += this.zeros;
        this.latestAt = this.heard + i;
      }
      this.zeros = 0;
      // the recent loudness, so that a hole that begins at a zero crossing is seen too
      this.last = Math.max(magnitude, this.last * 0.99);
    }
    this.heard += block[0].length;
  }
}
