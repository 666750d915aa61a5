import { Fft } from "@/core/dsp/fft";
import { fftWorkspace } from "@/core/dsp/fft-workspace";
import { powerDb as db } from "@/core/dsp/decibels";
import { FlatTops } from "./flat-tops";
import { isOneSignal } from "./one-signal";
import { longMean } from "./slow-wander";
import { median } from "@/core/dsp/quantile";
import { sampled } from "@/core/dsp/sampled";
import type { Samples } from "@/core/dsp/signal";

/** A tone in one channel. */
export interface ToneLevel {
  /** dBFS of a sine as strong as the tone is on average. */
  levelDbfs: number;
  /** Standard deviation of the level over tenths of a second, dB: a channel that will not hold still. */
  spreadDb: number;
  /** ± at 95 % of the level that it would have if it were heard for ever. */
  uncertaintyDb: number;
  /** Level of each tenth of a second that was heard, oldest first, dBFS. */
  track: Float64Array;
  /** Its tops are cut off: the level is lower than what was played, nobody knows by how much. */
  clipped: boolean;
}

/** How the second channel of a tone lies behind the first. */
export interface PairPhase {
  /** −180 … 180, positive when the right channel is later. */
  phaseDegrees: number;
  /** Standard deviation of the phase over tenths of a second. */
  spreadDegrees: number;
  /** 0 for strangers, 1 for twins: |Σ L·R*|² ÷ (Σ|L|² · Σ|R|²). */
  coherence: number;
  /** ± at 95 % of the mean, from the differences between parts of the time. */
  uncertaintyDegrees: number;
  /** Both channels are one signal, noise and all: the input is mono. */
  isMono: boolean;
  /** Phase of each tenth of a second that was heard, oldest first. */
  track: Float64Array;
}

export interface TonePair {
  frequencyHz: number;
  seconds: number;
  channels: ToneLevel[];
  /** Null for a single channel. */
  pair: PairPhase | null;
  /** Of each channel: what hum beside the tone may have done to its level in spite of being taken away, ± dB. */
  leftOverDb?: number[];
}

/** Half width of what is kept around the tone: the sidebands of flutter must be inside, hum outside. */
const HALF_WIDTH = 0.02;
const LEAST_HALF_WIDTH_HZ = 3;
/** The filter falls from 1 to 0 between one and this many half widths. */
const TAPER = 1.5;
/** How far the tone may be from where the tape has it. */
const SEARCH = 0.08;
export const FRAME_SECONDS = 0.1;
const PIECE_SECONDS = 5.5;
const SHORTEST_SECONDS = 0.4;
const BATCHES = 8;
/** The few parts of a short track say less of what it may be off by. */
const SHORT_TIMES = 2.5;
/** What a level may be off by of which next to nothing was heard. */
const UNKNOWN_DB = 1;
const DEGREES = 180 / Math.PI;

/**
 * Level of a steady tone in one or two channels, and the phase between them, at the tone's own wandering frequency: the
 * band around it is cut out of the Fourier transform of each piece of sound and brought down to 0 Hz, where flutter only
 * turns both channels by the same angle. Push blocks of any length; ask once, at the end.
 */
export class TonePairMeter {
  private readonly pieceSize: number;
  /** In single precision, as files hold it and sound cards give it. */
  private readonly kept: Float32Array[];
  private readonly tops: FlatTops[];
  private filled = 0;
  private readonly frames: Frame[] = [];
  private hzSum = 0;
  private pieces = 0;
  private mono = true;

  /** @throws RangeError for a tone above four tenths of the sample rate */
  constructor(
    private readonly sampleRateHz: number,
    channelCount: number,
    private readonly nominalHz: number,
  ) {
    if (!(nominalHz > 0 && nominalHz * (1 + SEARCH) < 0.48 * sampleRateHz))
      throw new RangeError(
        `a tone of ${nominalHz} Hz cannot be measured at ${sampleRateHz} samples a second`,
      );
    this.pieceSize = 2 ** Math.floor(Math.log2(PIECE_SECONDS * sampleRateHz));
    this.kept = Array.from({ length: Math.min(2, channelCount) }, () => new Float32Array(this.pieceSize));
    this.tops = this.kept.map(() => new FlatTops(sampleRateHz / nominalHz));
  }

  push(block: readonly Samples[]): void {
    for (let at = 0; at < block[0].length;) {
      const count = Math.min(block[0].length - at, this.pieceSize - this.filled);
      this.kept.forEach((kept, c) => kept.set(block[c].subarray(at, at + count), this.filled));
      this.filled += count;
      at += count;
      if (this.filled === this.pieceSize) this.takePiece();
    }
  }

  /**
   * Null when nothing was heard for long enough.
   * @param last only so many tenths of a second, counted from the end
   * @param leaveOut so many at the very end are left out of them
   */
  result(last = Infinity, leaveOut = 0): TonePair | null {
    if (this.filled >= SHORTEST_SECONDS * this.sampleRateHz) this.takePiece();
    const end = this.frames.length - leaveOut;
    const frames = this.frames.slice(Math.max(0, end - last), Math.max(0, end));
    if (frames.length === 0) return null;
    return {
      frequencyHz: this.hzSum / this.pieces,
      seconds: frames.length * FRAME_SECONDS,
      channels: this.kept.map((_, c) => ({ ...levelOf(frames, c), clipped: this.tops[c].found })),
      pair: this.kept.length === 2 ? { ...phaseOf(frames), isMono: this.mono } : null,
    };
  }

  private takePiece(): void {
    const piece = this.kept.map((kept) => kept.subarray(0, this.filled));
    piece.forEach((samples, c) => this.tops[c].look(samples));
    if (piece.length === 2) this.mono &&= isOneSignal(piece[0], piece[1]);
    const { frequencyHz, frames } = toneFrames(piece, this.sampleRateHz, this.nominalHz);
    this.frames.push(...frames);
    this.hzSum += frequencyHz;
    this.pieces++;
    this.filled = 0;
  }
}

/** A tenth of a second of a tone: mean squares of its amplitude, and the mean of L·R*. */
interface Frame {
  power: number[];
  crossRe: number;
  crossIm: number;
}

function toneFrames(channels: Float32Array[], sampleRateHz: number, nominalHz: number) {
  const count = channels[0].length;
  const size = 2 ** Math.ceil(Math.log2(count));
  const spectra = spectraOf(channels, size);
  const binHz = sampleRateHz / size;
  const middle = findTone(spectra, binHz, nominalHz);
  const halfWidth = Math.max(LEAST_HALF_WIDTH_HZ, HALF_WIDTH * middle * binHz) / binHz;
  const small = 2 ** Math.ceil(Math.log2(Math.max(64, 2 * TAPER * halfWidth + 2)));
  const low = spectra.map((spectrum) => baseband(spectrum, middle, halfWidth, small, size));

  const rate = small * binHz;
  const edge = Math.ceil((1.5 * rate) / (halfWidth * binHz));
  const last = Math.floor((count / size) * small) - edge;
  const perFrame = FRAME_SECONDS * rate;
  const frames: Frame[] = [];
  for (let i = 0; edge + (i + 1) * perFrame <= last; i++) {
    const from = Math.round(edge + i * perFrame);
    const to = Math.max(from + 1, Math.round(edge + (i + 1) * perFrame));
    frames.push(frameOf(low, from, to));
  }
  return { frequencyHz: middle * binHz, frames };
}

const NO_SECOND = new Float32Array(0);

/** Interleaved re, im of each channel up to half the sample rate. */
function spectraOf(channels: Float32Array[], size: number): Float64Array[] {
  const [left, right] = [new Float64Array(size + 2), new Float64Array(size + 2)];
  const [first, second = NO_SECOND] = channels;
  Fft.kept(size).ofTwo(first, second, { left, right });
  return second === NO_SECOND ? [left] : [left, right];
}

/** Middle of the strongest narrow band near the nominal frequency, in bins. */
function findTone(spectra: Float64Array[], binHz: number, nominalHz: number): number {
  const power = (k: number) =>
    spectra.reduce((sum, x) => sum + x[2 * k] * x[2 * k] + x[2 * k + 1] * x[2 * k + 1], 0);
  const from = Math.max(1, Math.floor((nominalHz * (1 - SEARCH)) / binHz));
  const to = Math.min(spectra[0].length / 2 - 1, Math.ceil((nominalHz * (1 + SEARCH)) / binHz));
  const powers = sampled(to - from + 1, (i) => power(from + i));
  const half = Math.max(1, Math.round(Math.max(1, 0.25 * HALF_WIDTH * nominalHz) / binHz));
  let best = 0;
  let bestSum = -1;
  let running = 0;
  for (let i = 0; i < powers.length; i++) {
    running += powers[i] - (i > 2 * half ? powers[i - 2 * half - 1] : 0);
    if (running > bestSum) [best, bestSum] = [i, running];
  }
  let weighted = 0;
  let total = 0;
  for (let i = Math.max(0, best - 2 * half); i <= best; i++) {
    weighted += i * powers[i];
    total += powers[i];
  }
  return from + Math.round(total > 0 ? weighted / total : best);
}

/** What lies around bin `middle`, brought down to 0 Hz at a low rate, as peak amplitude; interleaved re, im. */
function baseband(spectrum: Float64Array, middle: number, halfWidth: number, small: number, size: number) {
  const { fft, input: bins, output } = fftWorkspace(small);
  bins.fill(0);
  for (let j = -small / 2 + 1; j < small / 2; j++) {
    const k = middle + j;
    const beyond = (Math.abs(j) / halfWidth - 1) / (TAPER - 1);
    if (k < 1 || 2 * k + 1 >= spectrum.length || beyond >= 1) continue;
    const gain = ((beyond <= 0 ? 1 : 0.5 * (1 + Math.cos(Math.PI * beyond))) * 2 * small) / size;
    const at = (j + small) % small;
    bins[2 * at] = gain * spectrum[2 * k];
    bins[2 * at + 1] = gain * spectrum[2 * k + 1];
  }
  fft.inverseTransform(output, bins);
  return Float64Array.from(output);
}

function frameOf(low: Float64Array[], from: number, to: number): Frame {
  const power = low.map(() => 0);
  let [crossRe, crossIm] = [0, 0];
  const [left, right] = low;
  for (let i = from; i < to; i++) {
    const [lr, li] = [left[2 * i], left[2 * i + 1]];
    power[0] += lr * lr + li * li;
    if (!right) continue;
    const [rr, ri] = [right[2 * i], right[2 * i + 1]];
    power[1] += rr * rr + ri * ri;
    crossRe += lr * rr + li * ri;
    crossIm += li * rr - lr * ri;
  }
  const n = to - from;
  return { power: power.map((p) => p / n), crossRe: crossRe / n, crossIm: crossIm / n };
}

function levelOf(frames: Frame[], c: number): Omit<ToneLevel, "clipped"> {
  const mean = frames.reduce((sum, { power }) => sum + power[c], 0) / frames.length;
  const middle = db(median(frames.map(({ power }) => power[c])));
  const levels = frames.map(({ power }) => db(power[c]));
  const square = levels.reduce((sum, level) => sum + (level - middle) ** 2, 0);
  const spreadDb = Math.sqrt(square / frames.length);
  const error = errorOfMean(levels, meanOf(levels)) ?? Math.max(UNKNOWN_DB, spreadDb);
  return { levelDbfs: db(mean), spreadDb, uncertaintyDb: 2 * error, track: Float64Array.from(levels) };
}

function phaseOf(frames: Frame[]): Omit<PairPhase, "isMono"> {
  const sum = (of: (frame: Frame) => number) => frames.reduce((total, frame) => total + of(frame), 0);
  const [re, im] = [sum((f) => f.crossRe), sum((f) => f.crossIm)];
  const powers = sum((f) => f.power[0]) * sum((f) => f.power[1]);
  const phase = Math.atan2(im, re);
  const off = frames.map(({ crossRe, crossIm }) =>
    Math.atan2(
      crossIm * Math.cos(phase) - crossRe * Math.sin(phase),
      crossRe * Math.cos(phase) + crossIm * Math.sin(phase),
    ),
  );
  const spread = Math.sqrt(off.reduce((total, x) => total + x * x, 0) / off.length);
  return {
    phaseDegrees: phase * DEGREES,
    spreadDegrees: spread * DEGREES,
    coherence: powers > 0 ? (re * re + im * im) / powers : 0,
    uncertaintyDegrees: 2 * DEGREES * (errorOfMean(off, meanOf(off)) ?? Math.PI),
    track: Float64Array.from(off, (x) => (x + phase) * DEGREES),
  };
}

const meanOf = (values: number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

/** Shorter tracks are too few values to weigh slow weave by. */
const FEWEST_VALUES = 16;

/**
 * Standard error of the mean of values that hang together in time, as an estimate of the long mean: from the means of a
 * few long parts, or from the slow weave that may explain them (`longMean`), whichever is more. Null for too few values.
 */
function errorOfMean(values: number[], average: number): number | null {
  const parts = Math.min(BATCHES, Math.floor(values.length / 3));
  if (parts < 2) return null;
  const means = Array.from({ length: parts }, (_, p) =>
    meanOf(
      values.slice(Math.round((p * values.length) / parts), Math.round(((p + 1) * values.length) / parts)),
    ),
  );
  const middle = meanOf(means);
  const batches = means.reduce((sum, m) => sum + (m - middle) ** 2, 0) / (parts - 1) / parts;
  if (values.length < FEWEST_VALUES) return SHORT_TIMES * Math.sqrt(batches);
  const long = longMean(Float64Array.from(values));
  return Math.sqrt(Math.max(batches, long.variance + (long.mean - average) ** 2));
}
