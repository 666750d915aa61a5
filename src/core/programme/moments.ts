/**
 * The strongest line of some frames, in their order: frame, frequency and power at the same place of three arrays. Of two
 * hours there are some hundred thousand: an object each would be most of what is kept of them.
 */
export class Moments {
  constructor(
    readonly frame: Int32Array,
    readonly hz: Float64Array,
    readonly power: Float64Array,
  ) {}

  /** Room for so many. */
  static room(count: number): Moments {
    return new Moments(new Int32Array(count), new Float64Array(count), new Float64Array(count));
  }

  get length(): number {
    return this.frame.length;
  }

  put(at: number, frame: number, hz: number, power: number): void {
    this.frame[at] = frame;
    this.hz[at] = hz;
    this.power[at] = power;
  }

  /** Those from one place up to another; nothing is copied. */
  part(from: number, to = this.length): Moments {
    return new Moments(
      this.frame.subarray(from, to),
      this.hz.subarray(from, to),
      this.power.subarray(from, to),
    );
  }

  /** Those whose frequency is within a share of one, as a copy. */
  near(hz: number, within: number): Moments {
    const kept = Moments.room(this.length);
    let count = 0;
    for (let i = 0; i < this.length; i++)
      if (Math.abs(this.hz[i] / hz - 1) < within) kept.put(count++, this.frame[i], this.hz[i], this.power[i]);
    return kept.part(0, count);
  }
}
