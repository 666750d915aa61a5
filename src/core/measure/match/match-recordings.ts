import { FirDecimator } from "@/core/dsp/fir-decimator";
import { lineThrough } from "@/core/dsp/line-fit";
import { median } from "@/core/dsp/quantile";
import { kaiserLowpass } from "@/core/dsp/kaiser-lowpass";
import type { Samples } from "@/core/dsp/signal";
import { coarseMatches } from "./coarse-match";
import { residual, robustLine, TimeMap, type MapPoint } from "./time-map";

export interface MatchResult {
  /** Speed of the recording over that of the other, percent, positive = fast; null when they do not match. */
  speedErrorPercent: number | null;
  /** ± at 95 %: scatter and wander of the time map; the other recording's own speed is not in it. */
  uncertaintyPercent: number | null;
  /** Where in the other recording this one begins; negative when it begins earlier. */
  offsetSeconds: number | null;
  /** Share of the windows in which the two were found to be the same sound. */
  confidence: number;
  /** Speed against the mean over short pieces of the overlap, for a curve of the wander. */
  wander: Array<{ seconds: number; percent: number }>;
  warnings: string[];
}

const LOW_RATE_HZ = 8000;
const MOST_SECONDS = 600;
const SHORTEST_SECONDS = 4;
const LEAST_AGREEING = 0.5;
const FOLLOWED_INLIER_SECONDS = 0.003;
const WANDER_SECONDS = 2;
/** Flutter and wow keep the places of so long a piece together. */
const CORRELATED_SECONDS = 4;
const SHORT_OVERLAP_SECONDS = 15;

/** Takes a recording block by block and keeps it as mono at about 8 kHz, ten minutes at most. */
export class MatchSound {
  readonly rateHz: number;
  /** Time of the first kept sample. */
  readonly startSeconds: number;
  cut = false;
  private readonly decimator: FirDecimator;
  private readonly blocks: Float32Array[] = [];
  private length = 0;

  constructor(sampleRateHz: number) {
    const factor = Math.max(1, Math.floor(sampleRateHz / LOW_RATE_HZ));
    this.rateHz = sampleRateHz / factor;
    const pass = 0.43 * this.rateHz;
    this.decimator = new FirDecimator(
      kaiserLowpass(sampleRateHz, Math.min(pass, 0.43 * sampleRateHz), this.rateHz - pass, 70),
      factor,
    );
    this.startSeconds = this.decimator.delaySamples / sampleRateHz;
  }

  push(block: Samples[]): void {
    if (this.length > MOST_SECONDS * this.rateHz) {
      this.cut = true;
      return;
    }
    const mono = Float64Array.from(block[0], (v, i) => {
      let sum = v;
      for (let c = 1; c < block.length; c++) sum += block[c][i];
      return Number.isFinite(sum) ? sum / block.length : 0;
    });
    const low = Float32Array.from(this.decimator.push(mono).re);
    this.blocks.push(low);
    this.length += low.length;
  }

  get samples(): Float32Array {
    const all = new Float32Array(this.length);
    let at = 0;
    for (const block of this.blocks) {
      all.set(block, at);
      at += block.length;
    }
    return all;
  }
}

/**
 * Speed of a recording of music against another copy of the same recording, by the map between their times: where the
 * same moment lies in either, all along. Levels, equalisation and starts may differ; speeds by up to ±8 %.
 */
export function matchRecordings(mine: MatchSound, other: MatchSound): MatchResult {
  const warnings: string[] = [];
  const nothing = (why: string, confidence = 0): MatchResult => ({
    speedErrorPercent: null,
    uncertaintyPercent: null,
    offsetSeconds: null,
    confidence,
    wander: [],
    warnings: [...warnings, why],
  });
  const [x, y] = [mine.samples, other.samples];
  for (const [samples, rate, which] of [
    [x, mine.rateHz, "The recording"],
    [y, other.rateHz, "The other recording"],
  ] as const) {
    if (samples.length < SHORTEST_SECONDS * rate)
      return nothing(`${which} is shorter than ${SHORTEST_SECONDS} s; give some more of the piece.`);
    if (samples.every((v) => Math.abs(v) < 1e-5)) return nothing(`${which} is silent.`);
  }
  if (mine.cut || other.cut) warnings.push(`Only the first ${MOST_SECONDS / 60} minutes were compared.`);

  const map = new TimeMap(x, mine.rateHz, y, other.rateHz);
  let best: { line: NonNullable<ReturnType<typeof map.lock>>["line"]; agreeing: number; at: number } | null =
    null;
  for (const coarse of coarseMatches(x, mine.rateHz, y, other.rateHz)) {
    const locked = map.lock(coarse);
    if (locked && (best === null || locked.agreeing > best.agreeing)) best = { ...locked, at: coarse.at };
    if (best && best.agreeing > 0.8) break;
  }
  const strangers = "These are not two copies of one recording, or they differ by more than 8 % in speed.";
  if (best === null || best.agreeing < LEAST_AGREEING) return nothing(strangers, best?.agreeing ?? 0);
  const { points, tried } = map.follow(best.line, best.at);
  const line = robustLine(points, FOLLOWED_INLIER_SECONDS);
  if (line === null) return nothing(strangers, best.agreeing);

  const rest = points.map((p) => Math.abs(residual(p, line)));
  const limit = Math.max(FOLLOWED_INLIER_SECONDS, 4 * median(rest));
  const kept = points.filter((_, i) => rest[i] <= limit);
  const confidence = kept.length / Math.max(1, tried);
  if (confidence < LEAST_AGREEING) return nothing(strangers, confidence);
  const overlap = kept[kept.length - 1].seconds - kept[0].seconds;
  if (overlap < SHORT_OVERLAP_SECONDS)
    warnings.push(`Only ${overlap.toFixed(0)} s are in both recordings; a minute is better.`);
  // places within one piece share its wander: each piece counts once
  const pieces = Math.max(2, overlap / CORRELATED_SECONDS);
  const scatter = Math.sqrt(kept.reduce((s, p) => s + residual(p, line) ** 2, 0) / kept.length);
  return {
    speedErrorPercent: 100 * (line.ratio - 1),
    uncertaintyPercent: (200 * scatter * Math.sqrt(12 / pieces)) / Math.max(overlap, 1),
    offsetSeconds: line.offsetSeconds + other.startSeconds - line.ratio * mine.startSeconds,
    confidence,
    wander: wanderOf(kept, line.ratio),
    warnings,
  };
}

/** Slope of the map over each few seconds, against the mean slope. */
function wanderOf(points: MapPoint[], ratio: number): MatchResult["wander"] {
  const out: MatchResult["wander"] = [];
  for (let from = points[0].seconds; from < points[points.length - 1].seconds; from += WANDER_SECONDS) {
    const piece = points.filter((p) => p.seconds >= from && p.seconds < from + WANDER_SECONDS);
    if (piece.length < 4) continue;
    const { slope } = lineThrough(piece.map((p) => [p.seconds, p.otherSeconds]));
    const middle = piece.reduce((sum, p) => sum + p.seconds, 0) / piece.length;
    out.push({ seconds: middle, percent: 100 * (slope / ratio - 1) });
  }
  return out;
}
