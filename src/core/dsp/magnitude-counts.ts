/** Bits of a single-precision number that are left out: 1024 places to an octave remain. */
const LEFT_OUT = 13;
const PLACES = 2 ** (31 - LEFT_OUT);

/**
 * Counts how many magnitudes there are of each size, in steps of a thousandth, so that what a share of any number of them
 * stays below is known without keeping them.
 */
export class MagnitudeCounts {
  private readonly counts = new Uint32Array(PLACES);
  private readonly one = new Float32Array(1);
  private readonly bits = new Uint32Array(this.one.buffer);
  private total = 0;
  /** Nothing is counted below this place. */
  private lowest = PLACES - 1;

  /** The magnitudes of values from one place on. */
  add(values: Float64Array, from = 0): void {
    const { counts, one, bits } = this;
    let lowest = this.lowest;
    for (let i = from; i < values.length; i++) {
      one[0] = Math.abs(values[i]);
      const place = bits[0] >>> LEFT_OUT;
      counts[place]++;
      if (place < lowest) lowest = place;
    }
    this.lowest = lowest;
    this.total += Math.max(0, values.length - from);
  }

  /** What a share (0 … 1) of the magnitudes stay below, between the edges of a step by how many lie in it. @throws RangeError of none */
  quantile(share: number): number {
    if (this.total === 0) throw new RangeError("a quantile needs at least one magnitude");
    const wanted = share * this.total;
    let below = 0;
    let place = this.lowest;
    while (below + this.counts[place] < wanted && place < PLACES - 1) below += this.counts[place++];
    const [from, to] = [this.edge(place), this.edge(place + 1)];
    return from + (to - from) * ((wanted - below) / Math.max(1, this.counts[place]));
  }

  private edge(place: number): number {
    this.bits[0] = place << LEFT_OUT;
    return this.one[0];
  }
}
