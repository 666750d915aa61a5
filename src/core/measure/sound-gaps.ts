import type { Samples } from "@/core/dsp/signal";

/** Fewer zeros than this can be sound: a tone's crossing, or a quiet passage of few bits. */
const SHORTEST_HOLE = 48;
const LONGEST_HOLE = 48_000;
const LOUD = 1e-3;
/** Of what is no hole only so many samples are looked at, one in so many. */
const STRETCH = SHORTEST_HOLE / 2;
/** What is farther back has died away. */
const REMEMBERED = 1200;
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
  private loudness = 0;
  private heard = 0;

  /** The holes that ended within the block. */
  push(block: Samples[]): Hole[] {
    const holes: Hole[] = [];
    const { length } = block[0];
    let i = 0;
    while (i < length) {
      const last = i + STRETCH - 1;
      // a hole that begins within a stretch lasts beyond its end
      if (this.zeros === 0 && last < length && !isZero(block, last)) {
        i += STRETCH;
        continue;
      }
      if (isZero(block, i)) {
        if (this.zeros === 0) this.loudBefore = this.loudnessAt(block, i) > LOUD;
        this.zeros++;
      } else if (this.zeros > 0) {
        if (this.isHole) holes.push(this.close(this.heard + i));
        this.zeros = 0;
      }
      i++;
    }
    this.loudness = this.loudnessAt(block, length);
    this.heard += length;
    return holes;
  }

  /** How loud it was just before a sample, so that a hole that begins at a zero crossing is seen too. */
  private loudnessAt(block: readonly Samples[], to: number): number {
    const from = Math.max(0, to - REMEMBERED);
    let loudness = from === 0 ? this.loudness : 0;
    for (let i = from; i < to; i++) {
      loudness *= 0.99;
      for (const channel of block) loudness = Math.max(loudness, Math.abs(channel[i]));
    }
    return loudness;
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

const isZero = (block: readonly Samples[], i: number): boolean => block.every((channel) => channel[i] === 0);
