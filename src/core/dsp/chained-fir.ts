import { firRow, type KernelRoom } from "./fir-kernel";

/**
 * A filter over a stream that keeps every `factor`-th result, between others in the kernel's memory: what one leaves is where
 * the next begins. With `centreRadians` the pass band is moved up to that frequency (radians per sample) and the
 * result is complex. The first result appears once the taps are full of real samples, so no start-up transient is ever handed
 * on: result k belongs to input time `delaySamples + k·factor`.
 */
export class ChainedFir {
  readonly delaySamples: number;
  /** Taps, and for a complex result those of its imaginary part. */
  private readonly rows: [Float32Array] | [Float32Array, Float32Array];
  /** What came and is needed still: fewer than there are taps. */
  private readonly history: Float32Array;
  private held = 0;
  /** The first result to come ends before this place, counted from the first sample that is held. */
  private next: number;

  /** @param taps symmetric, odd in number, as `kaiserLowpass` makes them */
  constructor(
    taps: Float64Array,
    readonly factor: number,
    centreRadians?: number,
  ) {
    this.history = new Float32Array(taps.length);
    this.next = taps.length;
    this.delaySamples = (taps.length - 1) / 2;
    const moved = (part: (angle: number) => number, omega: number) =>
      firRow(taps.map((tap, j) => tap * part(omega * (this.delaySamples - j))));
    this.rows =
      centreRadians === undefined
        ? [firRow(taps)]
        : [moved(Math.cos, centreRadians), moved(Math.sin, centreRadians)];
  }

  get isComplex(): boolean {
    return this.rows.length === 2;
  }

  /** How many numbers its work on so many samples takes, without the results. */
  roomFor(samples: number): number {
    return 2 * this.rows[0].length + this.history.length + samples + ALIGNED;
  }

  /** How many results so many more samples will give. */
  resultsOf(samples: number): number {
    const all = this.held + samples;
    return all >= this.next ? Math.floor((all - this.next) / this.factor) + 1 : 0;
  }

  /** Begins its work on so many samples. @returns where they are to be put */
  begin(room: KernelRoom, samples: number): number {
    const at = room.place(this.history.length + samples);
    room.singles.set(this.history.subarray(0, this.held), at);
    return at + this.held;
  }

  /**
   * Filters what was put there.
   * @param put where `begin` said, and how many
   * @param re where the results go, and `im` where they are complex
   * @returns how many there are
   */
  run(room: KernelRoom, put: { at: number; samples: number }, re: number, im = re): number {
    const { singles } = room;
    const { history, held, factor } = this;
    const count = this.resultsOf(put.samples);
    const start = put.at - held;
    const all = held + put.samples;
    // zeros at the end of a row must not meet what is no number
    singles.fill(0, start + all, start + all + ALIGNED);
    const from = this.next - history.length;
    const [first, second] = this.rows.map((row) => room.put(row));
    const rows = second === undefined ? ([first] as const) : ([first, second] as const);
    room.convolve(start + from, rows, this.rows[0].length, factor, count, re, im);
    const drop = Math.min(from + count * factor, all);
    this.held = all - drop;
    this.next += count * factor - drop;
    history.set(singles.subarray(start + drop, start + all));
    return count;
  }
}

/** Numbers that are taken along where four are taken at a time. */
const ALIGNED = 4;
