/** A repeatable stream of random numbers (mulberry32): the same seed gives the same machine. */
export class SeededRandom {
  private state: number;
  private spare: number | null = null;

  constructor(seed: number) {
    this.state = seed >>> 0;
  }

  /** Uniform, 0 ≤ x < 1. */
  uniform(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0;
    let t = this.state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  /** Mean 0, standard deviation 1 (Marsaglia's polar method, which yields two at a time). */
  normal(): number {
    if (this.spare !== null) {
      const kept = this.spare;
      this.spare = null;
      return kept;
    }
    for (;;) {
      const a = 2 * this.uniform() - 1;
      const b = 2 * this.uniform() - 1;
      const square = a * a + b * b;
      if (square >= 1 || square === 0) continue;
      const scale = Math.sqrt((-2 * Math.log(square)) / square);
      this.spare = b * scale;
      return a * scale;
    }
  }
}
