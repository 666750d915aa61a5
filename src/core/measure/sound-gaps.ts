/** Fewer zeros than this can be sound: a tone's crossing, or a quiet passage of few bits. */
const SHORTEST_HOLE = 48;
const LONGEST_HOLE = 48_000;
const LOUD = 1e-3;

/**
 * Finds holes that a lost block leaves in the sound: stretches of exact zeros on every channel at once, with
 * sound right before and right after.
 */
export class SoundGaps {
  count = 0;
  missingSamples = 0;
  private zeros = 0;
  private loudBefore = false;
  private last = 0;

  push(block: Array<Float64Array | Float32Array>): void {
    for (let i = 0; i < block[0].length; i++) {
      let magnitude = 0;
      for (const channel of block) magnitude = Math.max(magnitude, Math.abs(channel[i]));
      if (magnitude === 0) {
        if (this.zeros === 0) this.loudBefore = this.last > LOUD;
        this.zeros++;
        continue;
      }
      if (this.zeros >= SHORTEST_HOLE && this.zeros <= LONGEST_HOLE && this.loudBefore && magnitude > 1e-5) {
        this.count++;
        this.missingSamples += this.zeros;
      }
      this.zeros = 0;
      // the recent loudness, so that a hole that begins at a zero crossing is seen too
      this.last = Math.max(magnitude, this.last * 0.99);
    }
  }
}
