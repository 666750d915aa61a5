/** Fewer zeros than this can be sound: a tone's crossing, or a quiet passage of few bits. */
const SHORTEST_HOLE = 48;
const LONGEST_HOLE = 48_000;
const LOUD = 1e-3;
/** An input stutters while it starts; nothing is measured by then. */
const STARTING_SAMPLES = 96_000;

/** Samples since the start; `to` is the first that is sound again. */
export interface Hole {
  from: number;
  to: number;
}

/**
 * Finds holes that a lost block leaves in the sound: stretches of exact zeros on every channel at once, with
 * sound right before and right after. Holes in the first two seconds of a source are found but not counted.
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

  /** The holes that ended within the block. */
  push(block: Array<Float64Array | Float32Array>): Hole[] {
    const holes: Hole[] = [];
    const [first, ...others] = block;
    let last = this.last; // a field that is written for each sample is many times slower
    for (let i = 0; i < first.length; i++) {
      let magnitude = Math.abs(first[i]);
      for (const channel of others) magnitude = Math.max(magnitude, Math.abs(channel[i]));
      if (magnitude === 0) {
        if (this.zeros === 0) this.loudBefore = last > LOUD;
        this.zeros++;
        continue;
      }
      if (this.zeros > 0) {
        if (this.isHole) holes.push(this.close(this.heard + i));
        this.zeros = 0;
      }
      // the recent loudness, so that a hole that begins at a zero crossing is seen too
      last = Math.max(magnitude, last * 0.99);
    }
    this.last = last;
    this.heard += block[0].length;
    return holes;
  }

  /** A hole that lasts until now, as far as one can tell. */
  get open(): Hole | null {
    return this.isHole ? { from: this.heard - this.zeros, to: this.heard } : null;
  }

  private close(to: number): Hole {
    if (to > STARTING_SAMPLES) {
      this.count++;
      this.missingSamples += this.zeros;
      this.latestAt = to;
    }
    return { from: to - this.zeros, to };
  }

  private get isHole(): boolean {
    return this.loudBefore && this.zeros >= SHORTEST_HOLE && this.zeros <= LONGEST_HOLE;
  }
}
