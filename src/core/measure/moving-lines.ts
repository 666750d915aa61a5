import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { lineThrough } from "@/core/dsp/line-fit";
import { meanOf } from "@/core/dsp/mean";
import { median } from "@/core/dsp/quantile";
import { summitNear } from "@/core/dsp/spectral-summit";
import { floorAround } from "./rate-lines";
import type { SteadyStretch } from "./steady-stretch";

/** A line that moves as a pack of tape grows or shrinks. */
export interface MovingLine {
  /** Radius of the pack at the start, and what its square changes by in a second. */
  startRadiusMm: number;
  squareMmPerSecond: number;
  /** Rate at the start and at the end. */
  fromHz: number;
  toHz: number;
  /** Mean square of the deviation in each harmonic, the first at index 0; nought where none is seen. */
  harmonicPower: number[];
  /** Middle value over time of how far the line stands above the noise, in power. */
  aboveFloor: number;
}

export interface PackLimits {
  hubRadiusMm: number;
  fullRadiusMm: number;
  tapeThicknessMicrometres?: number;
}

const LONGEST_WINDOW_SECONDS = 48;
const WINDOWS = 5;
/** Of any tape. */
const THICKNESS = { from: 5, to: 70 };
const THICKNESS_TOLERANCE = 0.35;
const THICKNESS_STEPS = 30;
const RADII = 160;
const LEAST_ABOVE_FLOOR = 5;
export const REEL_HARMONICS = 8;
const HARMONIC_ABOVE_FLOOR = 5;
/** The noise is judged at every so many bins. */
const FLOOR_EVERY = 4;
/** The change of the radius has to be so many times its own standard deviation to be called one. */
const SURE_OF_MOVING = 5;

/** Spectra of short windows one after the other, from which moving lines are followed. */
export class RateFrames {
  readonly binHz: number;
  readonly line: number;
  readonly seconds: number;
  /** Middle of each window, in seconds. */
  readonly at: number[] = [];
  readonly power: Float64Array[] = [];
  /** Of every so many bins. */
  private readonly floor: Float64Array[] = [];
  private readonly masked: Array<(seconds: number) => number> = [];

  /** @param deviation as a fraction, at `rateHz` */
  constructor(deviation: SteadyStretch["deviation"], rateHz: number, highestHz: number) {
    const down = Math.max(1, Math.floor(rateHz / (6 * highestHz)));
    const coarse = averaged(deviation, down);
    const coarseHz = rateHz / down;
    this.seconds = deviation.length / rateHz;
    const length = Math.round(Math.min(LONGEST_WINDOW_SECONDS, (2 * this.seconds) / WINDOWS) * coarseHz);
    const size = 4 * 2 ** Math.ceil(Math.log2(Math.max(2, length)));
    this.binHz = coarseHz / size;
    this.line = size / length;
    const bins = Math.min(size / 2, Math.ceil(highestHz / this.binHz) + 4 * Math.ceil(this.line));
    for (let start = 0; start + length <= coarse.length; start += Math.max(1, length >> 2)) {
      const piece = coarse.slice(start, start + length);
      const mean = meanOf(piece);
      for (let i = 0; i < length; i++) piece[i] -= mean;
      const { amplitude: power } = amplitudeSpectrum(piece, coarseHz, size, length, bins);
      for (let k = 0; k < power.length; k++) power[k] = power[k] ** 2 / 2 / (1.5 * this.line);
      const floor = new Float64Array(Math.ceil(power.length / FLOOR_EVERY));
      for (let f = 0; f < floor.length; f++) floor[f] = floorAround(power, FLOOR_EVERY * f, this.line);
      this.power.push(power);
      this.floor.push(floor);
      this.at.push((start + length / 2) / coarseHz);
    }
  }

  /** The summit within a line of a rate, in one window; null when nothing stands out there. */
  summitNear(t: number, rateHz: number): number | null {
    const power = this.power[t];
    const middle = Math.round(rateHz / this.binHz);
    const reach = Math.round(1.5 * this.line);
    let best = Math.max(1, middle - reach);
    for (let k = best; k <= Math.min(power.length - 2, middle + reach); k++)
      if (power[k] > power[best]) best = k;
    if (power[best] < LEAST_ABOVE_FLOOR * this.floorAt(t, best)) return null;
    return (best + summitNear(power, best).shift) * this.binHz;
  }

  /** Takes out a line along its path. */
  maskPath(rateAt: (seconds: number) => number): void {
    this.masked.push(rateAt);
    this.power.forEach((power, t) => this.level(power, t, rateAt(this.at[t])));
  }

  /** Takes a line that stays where it is out of every window, so that no moving line is seen in it. */
  mask(rateHz: number): void {
    this.masked.push(() => rateHz);
    this.power.forEach((power, t) => this.level(power, t, rateHz));
  }

  /** Whether a line that was taken out would hide one of this rate. */
  hides(t: number, rateHz: number): boolean {
    const reach = 4 * this.line * this.binHz;
    return this.masked.some((rateAt) => Math.abs(rateAt(this.at[t]) - rateHz) < reach);
  }

  private level(power: Float64Array, t: number, rateHz: number): void {
    const middle = rateHz / this.binHz;
    const reach = 2.2 * this.line;
    for (let k = Math.max(0, Math.ceil(middle - reach)); k <= Math.min(power.length - 1, middle + reach); k++)
      power[k] = Math.min(power[k], this.floorAt(t, k));
  }

  floorAt(t: number, bin: number): number {
    const nearest = Math.min(this.floor[t].length - 1, Math.max(0, Math.round(bin / FLOOR_EVERY)));
    return this.floor[t][nearest];
  }

  ratio(t: number, rateHz: number): number {
    const k = Math.round(rateHz / this.binHz);
    return k < 2 * this.line || k >= this.power[t].length ? 0 : this.power[t][k] / this.floorAt(t, k);
  }

  /** Mean square of what lies within a line's width of a rate, less the noise. */
  powerAt(t: number, rateHz: number): number {
    const middle = rateHz / this.binHz;
    const reach = 2.5 * this.line;
    let sum = 0;
    for (let k = Math.max(1, Math.ceil(middle - reach)); k <= middle + reach && k < this.power[t].length; k++)
      sum += this.power[t][k] - this.floorAt(t, k);
    return sum;
  }
}

/**
 * Finds the line of a reel: its rate is v/(2π·√(r₀² ± v·d·t/π)) for a pack of radius r₀ at the start and tape of
 * thickness d. Start radius and thickness are searched for the path along which the spectra stand out most; the
 * summits beside that path then give the radius, whose square changes evenly with time.
 * Returns null when nothing stands out, or when what does stands still as far as can be told.
 */
export function movingLine(frames: RateFrames, mmPerS: number, limits: PackLimits): MovingLine | null {
  if (frames.at.length < WINDOWS) return null;
  const path = bestPath(frames, mmPerS, limits);
  if (path === null) return null;
  const rate = (t: number, { r2, k }: Path) => mmPerS / (2 * Math.PI * Math.sqrt(Math.max(1, r2 + k * t)));

  const seen = frames.at.flatMap((at, t) => {
    const summit = frames.summitNear(t, rate(at, path));
    return summit === null ? [] : [{ at, square: (mmPerS / (2 * Math.PI * summit)) ** 2 }];
  });
  const open = frames.at.map((_, t) => t).filter((t) => !frames.hides(t, rate(frames.at[t], path)));
  if (seen.length < Math.max(WINDOWS, 0.7 * open.length) || open.length < 0.3 * frames.at.length) return null;
  const fit = lineThrough(seen.map(({ at, square }) => [at, square] as const));
  const micrometres = (1000 * Math.PI * Math.abs(fit.slope)) / mmPerS;
  const { from, to } = thicknesses(limits.tapeThicknessMicrometres);
  if (Math.abs(fit.slope) < SURE_OF_MOVING * fit.slopeSigma || micrometres < from || micrometres > to)
    return null;
  const fitted = { r2: fit.start, k: fit.slope };
  const ratios = open.map((t) => frames.ratio(t, rate(frames.at[t], fitted))).sort((a, b) => a - b);
  const aboveFloor = median(ratios);
  // a line that is there all the time, not one that the path crosses now and then
  if (aboveFloor < LEAST_ABOVE_FLOOR || ratios[ratios.length >> 2] < LEAST_ABOVE_FLOOR / 2) return null;
  const harmonicPower = Array.from({ length: REEL_HARMONICS }, (_, h) => {
    const at = (t: number) => (h + 1) * rate(frames.at[t], fitted);
    if (h > 0 && median(open.map((t) => frames.ratio(t, at(t)))) < HARMONIC_ABOVE_FLOOR) return 0;
    // the middle value: where it crosses another line both are in it
    return Math.max(0, median(open.map((t) => frames.powerAt(t, at(t)))));
  });
  return {
    startRadiusMm: Math.sqrt(fitted.r2),
    squareMmPerSecond: fitted.k,
    fromHz: rate(0, fitted),
    toHz: rate(frames.seconds, fitted),
    harmonicPower,
    aboveFloor,
  };
}

/** Square of the radius at the start, and what it changes by in a second. */
interface Path {
  r2: number;
  k: number;
}

function bestPath(frames: RateFrames, mmPerS: number, limits: PackLimits): Path | null {
  const { hubRadiusMm: hub, fullRadiusMm: full } = limits;
  const end = frames.seconds;
  const { from, to } = thicknesses(limits.tapeThicknessMicrometres);
  let best: (Path & { score: number }) | null = null;
  for (let j = -THICKNESS_STEPS; j <= THICKNESS_STEPS; j++) {
    if (j === 0) continue;
    const micrometres = from * (to / from) ** ((Math.abs(j) - 1) / (THICKNESS_STEPS - 1));
    const k = (Math.sign(j) * mmPerS * micrometres) / 1000 / Math.PI;
    for (let i = 0; i <= RADII; i++) {
      const r0 = hub * 0.98 + ((full * 1.02 - hub * 0.98) * i) / RADII;
      const last = r0 * r0 + k * end;
      if (last < (0.96 * hub) ** 2 || last > (1.04 * full) ** 2) continue;
      let score = 0;
      for (let t = 0; t < frames.at.length; t++)
        score += Math.log1p(frames.ratio(t, mmPerS / (2 * Math.PI * Math.sqrt(r0 * r0 + k * frames.at[t]))));
      if (best === null || score > best.score) best = { score, r2: r0 * r0, k };
    }
  }
  return best;
}

function thicknesses(known: number | undefined): { from: number; to: number } {
  return known === undefined
    ? THICKNESS
    : { from: known * (1 - THICKNESS_TOLERANCE), to: known * (1 + THICKNESS_TOLERANCE) };
}

function averaged(x: SteadyStretch["deviation"], by: number): Float64Array {
  const out = new Float64Array(Math.floor(x.length / by));
  for (let i = 0; i < out.length; i++) {
    let sum = 0;
    for (let j = 0; j < by; j++) sum += x[i * by + j];
    out[i] = sum / by;
  }
  return out;
}
