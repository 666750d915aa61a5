/** Coefficients of one second-order section, a0 = 1. */
export interface Section {
  b0: number;
  b1: number;
  b2: number;
  a1: number;
  a2: number;
}

/** A polynomial c2·s² + c1·s + c0 over another, in radians per second. */
export interface AnalogSection {
  numerator: [c2: number, c1: number, c0: number];
  denominator: [c2: number, c1: number, c0: number];
}

/** The bilinear transform without prewarping; callers warp the corner frequencies with `prewarp`. */
export function digitalSection({ numerator, denominator }: AnalogSection, sampleRateHz: number): Section {
  const k = 2 * sampleRateHz;
  const expand = ([c2, c1, c0]: [number, number, number]) => [
    c2 * k * k + c1 * k + c0,
    2 * c0 - 2 * c2 * k * k,
    c2 * k * k - c1 * k + c0,
  ];
  const b = expand(numerator);
  const a = expand(denominator);
  return { b0: b[0] / a[0], b1: b[1] / a[0], b2: b[2] / a[0], a1: a[1] / a[0], a2: a[2] / a[0] };
}

/** Analog angular frequency that the bilinear transform maps exactly onto `frequencyHz`. */
export function prewarp(frequencyHz: number, sampleRateHz: number): number {
  return 2 * sampleRateHz * Math.tan((Math.PI * frequencyHz) / sampleRateHz);
}

/** Butterworth high-pass of second order. */
export function butterworthHighpass(cornerHz: number, sampleRateHz: number): Section {
  const w = prewarp(cornerHz, sampleRateHz);
  return digitalSection({ numerator: [1, 0, 0], denominator: [1, Math.SQRT2 * w, w * w] }, sampleRateHz);
}

/** First-order shelf (s + zero)/(s + pole), scaled to gain 1 at 0 Hz; the gain at high frequencies is pole ÷ zero. */
export function shelf(zeroHz: number, poleHz: number, sampleRateHz: number): Section {
  const z = prewarp(zeroHz, sampleRateHz);
  const p = prewarp(poleHz, sampleRateHz);
  return digitalSection({ numerator: [0, p / z, p], denominator: [0, 1, p] }, sampleRateHz);
}

/** One section over a stream: it remembers where the last block left it. */
export class SectionFilter {
  private s1 = 0;
  private s2 = 0;

  constructor(private readonly section: Section) {}

  /** Filters a block in place. */
  push(x: Float64Array): void {
    const { b0, b1, b2, a1, a2 } = this.section;
    let { s1, s2 } = this;
    for (let i = 0; i < x.length; i++) {
      const v = x[i];
      const y = b0 * v + s1;
      // in this order the next value waits for as little as can be
      s1 = b1 * v + s2 - a1 * y;
      s2 = b2 * v - a2 * y;
      x[i] = y;
    }
    this.s1 = withoutTrace(s1);
    this.s2 = withoutTrace(s2);
  }
}

/** Far below anything that is heard, where a processor works many times slower. */
const TRACE = 1e-25;

/** The state of a filter after a block, nought where silence has left only a trace in it. */
export const withoutTrace = (state: number): number => (Math.abs(state) < TRACE ? 0 : state);

/** Gain of the sections at one frequency, as an amplitude ratio. */
export function gainAt(sections: Section[], frequencyHz: number, sampleRateHz: number): number {
  const w = (2 * Math.PI * frequencyHz) / sampleRateHz;
  const magnitude = (c0: number, c1: number, c2: number) =>
    Math.hypot(c0 + c1 * Math.cos(w) + c2 * Math.cos(2 * w), c1 * Math.sin(w) + c2 * Math.sin(2 * w));
  return sections.reduce((gain, q) => gain * (magnitude(q.b0, q.b1, q.b2) / magnitude(1, q.a1, q.a2)), 1);
}

/** High-pass filters of second order at one corner, one after the other, over a stream. */
export class HighPass {
  private readonly filters: SectionFilter[];

  constructor(cornerHz: number, sections: number, sampleRateHz: number) {
    this.filters = Array.from(
      { length: sections },
      () => new SectionFilter(butterworthHighpass(cornerHz, sampleRateHz)),
    );
  }

  /** What of a block lies above; the block itself stays. */
  push(x: ArrayLike<number>): Float64Array {
    const high = Float64Array.from(x);
    for (const filter of this.filters) filter.push(high);
    return high;
  }
}
