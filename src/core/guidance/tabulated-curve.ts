/** The table reaches so far on both sides of the recommended bias, in so many steps a decibel. */
const TABLE_REACH_DB = 40;
const TABLE_PER_DB = 50;

/** A smooth curve over bias, led straight through fine steps of it; each step is worked out when it is first asked for. */
export class TabulatedCurve {
  private readonly values = new Float64Array(2 * TABLE_REACH_DB * TABLE_PER_DB + 2).fill(NaN);
  private readonly last = this.values.length - 2;

  constructor(private readonly curve: (biasDb: number) => number) {}

  at(biasDb: number): number {
    const at = this.place(biasDb);
    const i = Math.floor(at);
    const from = this.step(i);
    return from + (at - i) * (this.step(i + 1) - from);
  }

  /** Per decibel of bias. */
  slope(biasDb: number): number {
    const i = Math.floor(this.place(biasDb));
    return TABLE_PER_DB * (this.step(i + 1) - this.step(i));
  }

  /** In steps; beyond the ends of the table it stays at them. */
  private place(biasDb: number): number {
    return Math.max(0, Math.min(this.last, (biasDb + TABLE_REACH_DB) * TABLE_PER_DB));
  }

  private step(i: number): number {
    const known = this.values[i];
    if (!Number.isNaN(known)) return known;
    return (this.values[i] = this.curve(i / TABLE_PER_DB - TABLE_REACH_DB));
  }
}
