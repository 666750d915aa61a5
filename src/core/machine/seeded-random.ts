/** A repeatable stream of random numbers (mulberry32): the same seed gives the same machine. */
export class SeededRandom {
  private state: number;

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

  /** Mean 0, standard deviation 1 (sum of twelve uniforms, which ends at ±6). */
  normal(): number {
    let sum = -6;
    for (let i = 0; i < 12; i++) sum += this.uniform();
    return sum;
  }
}
