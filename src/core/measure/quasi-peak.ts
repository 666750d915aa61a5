import { shelf, withoutTrace, type Section } from "@/core/dsp/filter-section";
import { sampled } from "@/core/dsp/sampled";

/**
 * Quasi-peak dynamics of the flutter meter (IEC 60386, DIN 45507): a filter, the magnitude, four equal
 * smoothing stages, then a detector that rises fast and falls slowly.
 *
 * The constants were fitted together, so that one-per-second pulses of deviation read 23, 58, 86 and 97 % of
 * a sinusoid of the same peak for 10, 30, 60 and 100 ms, the reading falls to 39 % between 100 ms pulses, and
 * a sinusoid of any rate from 0.3 to 150 Hz reads within 2 % of what it reads at 4 Hz.
 */
const SHELVES_ZERO_POLE_HZ = [
  [3.866, 6.386],
  [4.012, 7.751],
  [10.92, 5.225],
] as const;
/** As many shelves and stages as are written out below. */
const STATES = 3 + 4;
const SMOOTHING_SECONDS = 0.0171;
const ATTACK_SECONDS = 0.0084;
const RELEASE_SECONDS = 0.989;

const scales = new Map<number, number>();

/** The quasi-peak meter over a deviation that comes piece by piece; what comes before a place only runs it in. */
export class QuasiPeakMeter {
  private readonly shelves: Section[];
  /** Of the shelves, then of the smoothing stages. */
  private readonly states = new Float64Array(STATES);
  private readonly smooth: number;
  private readonly attack: number;
  private readonly keep: number;
  private shown = 0;
  private largest = 0;

  constructor(private readonly rateHz: number) {
    this.shelves = SHELVES_ZERO_POLE_HZ.map(([zeroHz, poleHz]) => shelf(zeroHz, poleHz, rateHz));
    const perSample = (seconds: number) => 1 - Math.exp(-1 / (seconds * rateHz));
    this.smooth = perSample(SMOOTHING_SECONDS);
    this.attack = perSample(ATTACK_SECONDS);
    this.keep = 1 - perSample(RELEASE_SECONDS);
  }

  /**
   * Takes the next values: all stages in one loop, where one need not wait for the other.
   * @param counted from which of them on readings count; none when it is beyond them
   */
  push(piece: Float64Array, counted = 0): void {
    const [p, q, r] = this.shelves;
    // of first order: as sections of second they carry a factor in both polynomials, which is left out here
    const [p0, p1, pa] = [p.b0, p.b2, p.a2];
    const [q0, q1, qa] = [q.b0, q.b2, q.a2];
    const [r0, r1, ra] = [r.b0, r.b2, r.a2];
    const { smooth, attack, keep } = this;
    let [ps, qs, rs, s0, s1, s2, s3] = this.states;
    let { shown, largest } = this;
    for (let i = 0; i < piece.length; i++) {
      const x = piece[i];
      const afterP = p0 * x + ps;
      ps = p1 * x - pa * afterP;
      const afterQ = q0 * afterP + qs;
      qs = q1 * afterP - qa * afterQ;
      const afterR = r0 * afterQ + rs;
      rs = r1 * afterQ - ra * afterR;
      s0 += smooth * (Math.abs(afterR) - s0);
      s1 += smooth * (s0 - s1);
      s2 += smooth * (s1 - s2);
      s3 += smooth * (s2 - s3);
      if (s3 > shown) shown += attack * (s3 - shown);
      else shown *= keep;
      if (shown > largest && i >= counted) largest = shown;
    }
    this.states.set([ps, qs, rs, s0, s1, s2, s3].map(withoutTrace));
    this.shown = shown;
    this.largest = largest;
  }

  /** The largest reading so far, scaled so that a sinusoid of 4 Hz reads its peak; in the unit of the deviation. */
  get peak(): number {
    return this.largest * scaleOf(this.rateHz);
  }

  /** The largest reading without its scale. */
  get unscaled(): number {
    return this.largest;
  }
}

/** What makes a reading of a sinusoid of 4 Hz its peak. */
function scaleOf(rateHz: number): number {
  const known = scales.get(rateHz);
  if (known !== undefined) return known;
  const seconds = 8;
  const sine = sampled(Math.round(seconds * rateHz), (i) => Math.sin((2 * Math.PI * 4 * i) / rateHz));
  const meter = new QuasiPeakMeter(rateHz);
  meter.push(sine, sine.length >> 1);
  const scale = 1 / meter.unscaled;
  scales.set(rateHz, scale);
  return scale;
}
