import { CrossCorrelator } from "@/core/dsp/cross-correlation";
import { median } from "@/core/dsp/quantile";
import { interpolateMany, INTERPOLATOR_REACH } from "@/core/dsp/sinc-interpolator";
import type { CoarseMatch } from "./coarse-match";

/** A place in one recording that is the same sound as a place in another. */
export interface MapPoint {
  seconds: number;
  otherSeconds: number;
  /** How alike the two are there, 0 to 1. */
  alike: number;
}

export interface MapLine {
  ratio: number;
  /** Place in the other recording of the beginning of this one. */
  offsetSeconds: number;
}

const WINDOW_SECONDS = 0.5;
const STEP_SECONDS = 0.25;
const LOWEST_HZ = 200;
const HIGHEST_HZ = 3400;
const FIRST_REACH_SECONDS = 0.06;
const NEXT_REACH_SECONDS = 0.012;
/** Ratios tried about the coarse one, in percent. */
const FINE_STEPS = [-0.3, -0.225, -0.15, -0.075, 0, 0.075, 0.15, 0.225, 0.3];
const FIRST_WINDOWS = 32;
const ALIKE = 0.18;
const INLIER_SECONDS = 0.004;
/** Passages so much quieter than the loudest are left out. */
const QUIET = 0.003;

/** Follows how the time of one recording runs in another, piece by piece. */
export class TimeMap {
  private readonly correlator: CrossCorrelator;
  private readonly window: number;
  private readonly loudest: number;

  /** @param x, y mono at `rateHz` and `otherRateHz` */
  constructor(
    private readonly x: Float32Array,
    private readonly rateHz: number,
    private readonly y: Float32Array,
    private readonly otherRateHz: number,
  ) {
    this.window = Math.round(WINDOW_SECONDS * rateHz);
    this.correlator = new CrossCorrelator(this.window, rateHz, LOWEST_HZ, HIGHEST_HZ);
    let loudest = 0;
    for (let start = 0; start + this.window <= x.length; start += this.window)
      loudest = Math.max(loudest, rms(x, start, this.window));
    this.loudest = loudest;
  }

  /**
   * Makes a coarse match exact: the ratio near it whose windows agree best on one line. `agreeing` is the share of
   * windows that lie on it, although each was free to lie anywhere within ±60 ms.
   */
  lock(coarse: CoarseMatch): { line: MapLine; agreeing: number } | null {
    const middle = coarse.at;
    let best: { line: MapLine; agreeing: number } | null = null;
    for (const step of FINE_STEPS) {
      const ratio = coarse.ratio * (1 + step / 100);
      const line = { ratio, offsetSeconds: coarse.otherAt - ratio * middle };
      const points: MapPoint[] = [];
      let tried = 0;
      for (let w = 0; w < FIRST_WINDOWS; w++) {
        const at = middle + (w - FIRST_WINDOWS / 2) * STEP_SECONDS;
        const point = this.compare(at, line, FIRST_REACH_SECONDS);
        if (point === undefined) continue;
        tried++;
        if (point) points.push(point);
      }
      if (tried < FIRST_WINDOWS / 4) continue;
      const fitted = robustLine(points);
      if (!fitted) continue;
      const agreeing = points.filter((p) => Math.abs(residual(p, fitted)) < INLIER_SECONDS).length / tried;
      if (best === null || agreeing > best.agreeing) best = { line: fitted, agreeing };
    }
    return best;
  }

  /** Points along the whole overlap, outwards from where the match was locked. */
  follow(line: MapLine, from: number): { points: MapPoint[]; tried: number } {
    const points: MapPoint[] = [];
    let tried = 0;
    for (const direction of [1, -1]) {
      const recent: MapPoint[] = points.slice(0, 8);
      for (let n = direction > 0 ? 0 : 1; ; n++) {
        const at = from + direction * n * STEP_SECONDS;
        if (at < 0 || at * this.rateHz > this.x.length) break;
        // the line through what was found last: speed may wander along the recording
        const near = recent.slice(-8);
        const expected =
          near.length < 4
            ? line
            : {
                ratio: line.ratio,
                offsetSeconds:
                  near.reduce((s, p) => s + p.otherSeconds - line.ratio * p.seconds, 0) / near.length,
              };
        const point = this.compare(at, expected, NEXT_REACH_SECONDS);
        if (point === undefined) continue;
        tried++;
        if (!point) continue;
        points.push(point);
        recent.push(point);
      }
    }
    return { points: points.sort((a, b) => a.seconds - b.seconds), tried };
  }

  /** Undefined where there is nothing to compare; null where the two are strangers. */
  private compare(at: number, line: MapLine, reachSeconds: number): MapPoint | null | undefined {
    const { window, rateHz, otherRateHz, x, y } = this;
    const start = Math.round(at * rateHz - window / 2);
    const end = start + window;
    const first = (line.offsetSeconds + (line.ratio * start) / rateHz) * otherRateHz;
    const last = (line.offsetSeconds + (line.ratio * end) / rateHz) * otherRateHz;
    if (start < 0 || end > x.length) return undefined;
    if (first < INTERPOLATOR_REACH || last > y.length - INTERPOLATOR_REACH - 1) return undefined;
    if (rms(x, start, window) < QUIET * this.loudest) return undefined;
    const mine = Float64Array.from(x.subarray(start, end));
    const step = (line.ratio * otherRateHz) / rateHz;
    const other = new Float64Array(window);
    interpolateMany(
      y,
      other.map((_, i) => first + i * step),
      other,
    );
    const { lag, height } = this.correlator.peak(mine, other, Math.round(reachSeconds * rateHz));
    if (height < ALIKE) return null;
    const seconds = (start + window / 2) / rateHz;
    const otherSeconds = line.offsetSeconds + line.ratio * (seconds - lag / rateHz);
    return { seconds, otherSeconds, alike: height };
  }
}

export const residual = (p: MapPoint, { ratio, offsetSeconds }: MapLine): number =>
  p.otherSeconds - offsetSeconds - ratio * p.seconds;

/** Line through most of the points: the slope in the middle of all pairs' slopes, then least squares of what fits. */
export function robustLine(points: MapPoint[], inlierSeconds = INLIER_SECONDS): MapLine | null {
  if (points.length < 6) return null;
  const slopes: number[] = [];
  const stride = Math.max(1, Math.floor(points.length / 160));
  for (let i = 0; i < points.length; i += stride)
    for (let j = i + 1; j < points.length; j += stride) {
      const run = points[j].seconds - points[i].seconds;
      if (run > 0.9) slopes.push((points[j].otherSeconds - points[i].otherSeconds) / run);
    }
  if (slopes.length === 0) return null;
  let ratio = median(slopes);
  let offsetSeconds = median(points.map((p) => p.otherSeconds - ratio * p.seconds));
  for (let round = 0; round < 4; round++) {
    const rest = points.map((p) => Math.abs(residual(p, { ratio, offsetSeconds })));
    const limit = Math.max(inlierSeconds, 3 * median(rest));
    const kept = points.filter((_, i) => rest[i] <= limit);
    if (kept.length < 6) return { ratio, offsetSeconds };
    const weight = kept.reduce((s, p) => s + p.alike, 0);
    const mx = kept.reduce((s, p) => s + p.alike * p.seconds, 0) / weight;
    const my = kept.reduce((s, p) => s + p.alike * p.otherSeconds, 0) / weight;
    const xx = kept.reduce((s, p) => s + p.alike * (p.seconds - mx) ** 2, 0);
    ratio = kept.reduce((s, p) => s + p.alike * (p.seconds - mx) * (p.otherSeconds - my), 0) / xx;
    offsetSeconds = my - ratio * mx;
  }
  return { ratio, offsetSeconds };
}

function rms(x: Float32Array, start: number, length: number): number {
  let sum = 0;
  for (let i = start; i < start + length; i++) sum += x[i] * x[i];
  return Math.sqrt(sum / length);
}
