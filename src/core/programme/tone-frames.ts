import { FirDecimator } from "@/core/dsp/fir-decimator";
import { joined } from "@/core/dsp/joined";
import { kaiserLowpass } from "@/core/dsp/kaiser-lowpass";
import { StereoSpectrum } from "@/core/dsp/stereo-spectrum";
import type { Samples } from "@/core/dsp/signal";

/** The strongest lines kept of each frame, in each of the two frequency ranges. */
const PEAKS = 3;
export const LINES_PER_FRAME = 2 * PEAKS;
const SIZE = 4096;
const HOP = 1024;
const LOW_FACTOR = 16;
const LOW_SIZE = 1024;
/** Below this a longer window is needed to tell tones apart; the ranges overlap, so that no tone falls between. */
const LOW_UP_TO_HZ = 345;
const HIGH_FROM_HZ = 300;
/** Bins to either side that belong to a line: the window's main lobe, and the nearest sidebands of flutter. */
const LOBE_BINS = 4;
const LOW_LOBE_BINS = 2;
export const OCTAVES_FROM_HZ = [500, 1000, 2000, 4000, 8000] as const;

const PEAK_FIELDS = 3;
const STRIDE = LINES_PER_FRAME * PEAK_FIELDS + 2 + OCTAVES_FROM_HZ.length;

export interface Peak {
  hz: number;
  /** Squared peak amplitude of the line on each channel. */
  left: number;
  right: number;
}

/** Both channels together. */
export const sumOf = (both: { left: number; right: number }): number => both.left + both.right;

/**
 * What is heard from moment to moment, fifty times a second: the strongest spectral lines with their exact
 * frequency (from the phase that passed since the frame before) and their power on each channel, the whole
 * power, and the power by octaves. 85 ms of sound a frame, 340 ms for tones below about 320 Hz. About 5 kB are kept
 * of each second.
 */
export class ToneFrames {
  length = 0;
  readonly secondsPerFrame: number;
  /** Time of the middle of frame 0. */
  firstSeconds: number;
  private store = new Float32Array(1024 * STRIDE);
  private readonly rateHz: number;
  private readonly decimators: FirDecimator[] | null;
  private readonly lowDecimators: FirDecimator[];
  private readonly high = new StereoSpectrum(SIZE);
  private readonly low = new StereoSpectrum(LOW_SIZE);
  private readonly lastHigh: [Float64Array, Float64Array];
  private readonly lastLow: [Float64Array, Float64Array];
  private held: Float64Array[];
  private heldLow: Float64Array[];
  private readonly used: number;
  private readonly strongest = new Strongest();

  constructor(
    readonly sampleRateHz: number,
    channelCount: number,
    private readonly keepSeconds = Infinity,
  ) {
    this.used = Math.min(2, channelCount);
    const factor = Math.max(1, Math.floor(sampleRateHz / 44100));
    this.rateHz = sampleRateHz / factor;
    const each = <T>(make: () => T) => Array.from({ length: this.used }, make);
    const taps = factor > 1 ? kaiserLowpass(sampleRateHz, 20500, this.rateHz - 20500, 80) : null;
    this.decimators = taps && each(() => new FirDecimator(taps, factor));
    const lowRateHz = this.rateHz / LOW_FACTOR;
    const lowTaps = kaiserLowpass(this.rateHz, 450, lowRateHz - 450, 80);
    this.lowDecimators = each(() => new FirDecimator(lowTaps, LOW_FACTOR));
    this.lastHigh = [new Float64Array(SIZE + 2), new Float64Array(SIZE + 2)];
    this.lastLow = [new Float64Array(LOW_SIZE + 2), new Float64Array(LOW_SIZE + 2)];
    this.held = each(() => new Float64Array(0));
    // silence in front puts the middle of each long window on the middle of the short one
    const lead = Math.round(
      (this.lowDecimators[0].delaySamples + (LOW_FACTOR * LOW_SIZE) / 2 - SIZE / 2) / LOW_FACTOR,
    );
    this.heldLow = each(() => new Float64Array(lead));
    this.secondsPerFrame = HOP / this.rateHz;
    this.firstSeconds = SIZE / 2 / this.rateHz + (this.decimators?.[0].delaySamples ?? 0) / sampleRateHz;
  }

  secondsOf(frame: number): number {
    return this.firstSeconds + frame * this.secondsPerFrame;
  }

  push(block: Samples[]): void {
    for (let c = 0; c < this.used; c++) {
      const samples = this.decimators ? this.decimators[c].push(block[c]).re : block[c];
      this.held[c] = joined(this.held[c], samples);
      this.heldLow[c] = joined(this.heldLow[c], this.lowDecimators[c].push(samples).re);
    }
    let at = 0;
    let atLow = 0;
    while (at + SIZE <= this.held[0].length && atLow + LOW_SIZE <= this.heldLow[0].length) {
      this.addFrame(at, atLow);
      at += HOP;
      atLow += HOP / LOW_FACTOR;
    }
    this.held = this.held.map((x) => x.slice(at));
    this.heldLow = this.heldLow.map((x) => x.slice(atLow));
  }

  /** The recording has ended: what is left in the windows is brought out. */
  finish(): void {
    const silence = new Float64Array(Math.round(0.4 * this.sampleRateHz));
    this.push(Array.from({ length: this.used }, () => silence));
  }

  /** Frequency of a kept line, 0 where there is none; strongest first within each of the two ranges. */
  hz(frame: number, line: number): number {
    return this.store[frame * STRIDE + line * PEAK_FIELDS];
  }

  /** Squared peak amplitude of a kept line, both channels together. */
  linePower(frame: number, line: number): number {
    const at = frame * STRIDE + line * PEAK_FIELDS;
    return this.store[at + 1] + this.store[at + 2];
  }

  peak(frame: number, line: number): Peak {
    const at = frame * STRIDE + line * PEAK_FIELDS;
    return { hz: this.store[at], left: this.store[at + 1], right: this.store[at + 2] };
  }

  /** Whole power of a frame per channel, as the squared amplitude of a sine that strong. */
  power(frame: number): { left: number; right: number } {
    const at = frame * STRIDE + LINES_PER_FRAME * PEAK_FIELDS;
    return { left: this.store[at], right: this.store[at + 1] };
  }

  /** Power in the octave that begins at `OCTAVES_FROM_HZ[octave]`. */
  octavePower(frame: number, octave: number): number {
    return this.store[frame * STRIDE + LINES_PER_FRAME * PEAK_FIELDS + 2 + octave];
  }

  /** For a source without an end: forgets what is older than asked, half of it at a time. */
  private forget(): void {
    const keep = Math.ceil(this.keepSeconds / this.secondsPerFrame);
    if (this.length < 2 * keep) return;
    const drop = this.length - keep;
    this.store.copyWithin(0, drop * STRIDE, this.length * STRIDE);
    this.length = keep;
    this.firstSeconds += drop * this.secondsPerFrame;
  }

  private addFrame(at: number, atLow: number): void {
    this.forget();
    if ((this.length + 1) * STRIDE > this.store.length) {
      const grown = new Float32Array(2 * this.store.length);
      grown.set(this.store);
      this.store = grown;
    }
    const { high, low, store } = this;
    high.transform(this.held[0], this.held[1] ?? null, at);
    low.transform(this.heldLow[0], this.heldLow[1] ?? null, atLow);
    let p = this.length * STRIDE;
    const lowRateHz = this.rateHz / LOW_FACTOR;
    p = this.keepPeaks(p, low, this.lastLow, lowRateHz, 15, LOW_UP_TO_HZ, LOW_LOBE_BINS);
    p = this.keepPeaks(p, high, this.lastHigh, this.rateHz, HIGH_FROM_HZ, 0.48 * this.rateHz, LOBE_BINS);
    const powers = bandPowers(high, this.rateHz);
    store.set(powers, p);
    this.length++;
  }

  private keepPeaks(
    p: number,
    spectrum: StereoSpectrum,
    last: [Float64Array, Float64Array],
    rateHz: number,
    fromHz: number,
    toHz: number,
    lobe: number,
  ): number {
    const { size, left, right, leftPower, rightPower } = spectrum;
    const binHz = rateHz / size;
    const hop = (HOP * rateHz) / this.rateHz;
    const { strongest } = this;
    strongest.clear();
    const end = Math.min(size / 2 - 1, Math.floor(toHz / binHz));
    const start = Math.ceil(fromHz / binHz);
    let before = leftPower[start - 1] + rightPower[start - 1];
    let here = leftPower[start] + rightPower[start];
    let least = 0;
    for (let k = start; k < end; k++) {
      const after = leftPower[k + 1] + rightPower[k + 1];
      if (here > least && here >= before && here > after) {
        strongest.take(k, here, lobe);
        least = strongest.least;
      }
      before = here;
      here = after;
    }
    for (let i = 0; i < PEAKS; i++, p += PEAK_FIELDS) {
      if (i >= strongest.count) {
        this.store.fill(0, p, p + PEAK_FIELDS);
        continue;
      }
      const k = strongest.bins[i];
      let l = 0;
      let r = 0;
      for (let b = Math.max(1, k - lobe); b <= Math.min(size / 2, k + lobe); b++) {
        l += leftPower[b];
        r += rightPower[b];
      }
      this.store[p] = frequencyOf(k, spectrum, last, rateHz, hop);
      this.store[p + 1] = l;
      this.store[p + 2] = r;
    }
    // the two pairs of arrays change places, so that nothing is copied
    [spectrum.left, last[0]] = [last[0], left];
    [spectrum.right, last[1]] = [last[1], right];
    return p;
  }
}

/** The strongest summits of a spectrum, the first first. */
class Strongest {
  readonly bins = new Int32Array(PEAKS);
  private readonly powers = new Float64Array(PEAKS);
  count = 0;

  clear(): void {
    this.count = 0;
  }

  /** What a summit has to exceed to be among them. */
  get least(): number {
    return this.count < PEAKS ? 0 : this.powers[PEAKS - 1];
  }

  /** Takes a summit, unless a stronger one is within its lobe. */
  take(k: number, power: number, lobe: number): void {
    const { bins, powers } = this;
    let near = 0;
    while (near < this.count && Math.abs(bins[near] - k) > lobe) near++;
    if (near < this.count) {
      if (power <= powers[near]) return;
      this.move(near + 1, near);
      this.count--;
    }
    let place = 0;
    while (place < this.count && powers[place] >= power) place++;
    if (place === PEAKS) return;
    this.move(place, place + 1);
    bins[place] = k;
    powers[place] = power;
    this.count = Math.min(PEAKS, this.count + 1);
  }

  /** Those from one place on to another one. */
  private move(from: number, to: number): void {
    this.bins.copyWithin(to, from);
    this.powers.copyWithin(to, from);
  }
}

/**
 * The frequency of the line at bin k: by the height of its neighbours first, then by the phase that both channels
 * together went through since the frame before, when that agrees.
 */
function frequencyOf(
  k: number,
  { size, left, right, leftPower, rightPower }: StereoSpectrum,
  [lastLeft, lastRight]: [Float64Array, Float64Array],
  rateHz: number,
  hop: number,
): number {
  const magnitude = (bin: number) => Math.log(leftPower[bin] + rightPower[bin] + 1e-300);
  const a = magnitude(k - 1);
  const b = magnitude(k);
  const c = magnitude(k + 1);
  const lean = (c - a) / (2 * (2 * b - a - c)) || 0;
  const cycles = ((k + lean) * hop) / size;
  const i = 2 * k;
  const j = i + 1;
  const re =
    left[i] * lastLeft[i] + left[j] * lastLeft[j] + right[i] * lastRight[i] + right[j] * lastRight[j];
  const im =
    left[j] * lastLeft[i] - left[i] * lastLeft[j] + right[j] * lastRight[i] - right[i] * lastRight[j];
  if (re === 0 && im === 0) return (cycles * rateHz) / hop;
  const turned = Math.atan2(im, re) / (2 * Math.PI);
  const whole = Math.round(cycles - turned);
  const agreed = Math.abs(whole + turned - cycles) < 0.2;
  return ((agreed ? whole + turned : cycles) * rateHz) / hop;
}

/** Left and right total, then the octaves, both channels together. */
function bandPowers({ size, leftPower, rightPower }: StereoSpectrum, rateHz: number): number[] {
  const binHz = rateHz / size;
  const sums = new Array<number>(2 + OCTAVES_FROM_HZ.length).fill(0);
  let [octave, end] = [-1, OCTAVES_FROM_HZ[0] / binHz];
  for (let k = 1; k < size / 2; k++) {
    sums[0] += leftPower[k];
    sums[1] += rightPower[k];
    if (k >= end) {
      octave++;
      end *= 2;
    }
    if (octave >= 0 && octave < OCTAVES_FROM_HZ.length) sums[2 + octave] += leftPower[k] + rightPower[k];
  }
  return sums;
}
