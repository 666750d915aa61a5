import { amplitudeDb, powerDb } from "@/core/dsp/decibels";
import { FastFir } from "@/core/dsp/fast-fir";
import { StereoSpectrum } from "@/core/dsp/stereo-spectrum";
import { aWeighting, itu468Weighting, QUASI_PEAK_FOLLOWERS } from "@/core/standards/noise-weighting";
import { sampled } from "@/core/dsp/sampled";
import type { Samples } from "@/core/dsp/signal";

/** Noise of a channel, dBFS: the level of a sine as strong. */
export interface WeightedNoise {
  /** 20 Hz to 20 kHz, RMS. */
  flatDbfs: number;
  /** A curve, RMS (IEC 61672-1). */
  aDbfs: number;
  /** Quasi-peak, weighted (ITU-R BS.468-4). */
  itu468Dbfs: number;
}

const SIZE = 8192;
const LOWEST_HZ = 20;
/** Noise is told up to here. */
export const WEIGHTED_TO_HZ = 20_000;
const HALF_TAPS = 1023;
/** The detector has run in after so long. */
const RUN_IN_SECONDS = 1.2;
const SHORTEST_SECONDS = 0.3;
/** So many samples are weighted at once. */
const PIECE = 1 << 16;

/**
 * Noise of one or two channels, 20 Hz to 20 kHz and weighted. RMS figures from the mean spectrum of half overlapping Hann
 * windows; the quasi-peak figure is the highest after the detector has run in, or over everything where that is shorter.
 * @returns null for less than 0.3 s
 */
export function weightedNoise(channels: readonly Samples[], sampleRateHz: number): WeightedNoise[] | null {
  if ((channels[0]?.length ?? 0) < SHORTEST_SECONDS * sampleRateHz) return null;
  const powers = meanPower(channels, sampleRateHz);
  const quasiPeak = quasiPeakAt(sampleRateHz);
  return channels.map((x, c) => ({
    flatDbfs: powerDb(weighed(powers[c], sampleRateHz, () => 1)),
    aDbfs: powerDb(weighed(powers[c], sampleRateHz, aWeighting)),
    itu468Dbfs: amplitudeDb(quasiPeak.of(x)),
  }));
}

/** Mean power of each bin, a full-scale sine being 1 in all of its bins together. */
function meanPower(channels: readonly Samples[], sampleRateHz: number): Float64Array[] {
  const size = sizeFor(sampleRateHz, channels[0].length);
  const spectrum = new StereoSpectrum(size);
  const sums = channels.map(() => new Float64Array(size / 2 + 1));
  let frames = 0;
  for (let at = 0; at + size <= channels[0].length; at += size / 2) {
    const [left, right = null] = channels.map((x) => new Float64Array(x.subarray(at, at + size)));
    spectrum.transform(left, right, 0);
    frames++;
    [spectrum.leftPower, spectrum.rightPower]
      .slice(0, channels.length)
      .forEach((power, c) => power.forEach((value, k) => (sums[c][k] += value)));
  }
  return sums.map((sum) => sum.map((value) => value / Math.max(1, frames)));
}

const sizeFor = (sampleRateHz: number, length: number): number =>
  2 ** Math.floor(Math.log2(Math.min(length, (SIZE * sampleRateHz) / 48_000)));

function weighed(power: Float64Array, sampleRateHz: number, gain: (hz: number) => number): number {
  const binHz = sampleRateHz / (2 * (power.length - 1));
  let sum = 0;
  for (let k = Math.ceil(LOWEST_HZ / binHz); k < power.length && k * binHz <= WEIGHTED_TO_HZ; k++)
    sum += power[k] * gain(k * binHz) ** 2;
  return sum;
}

/** The meter of the sample rate that was asked for last: noise is read over and over of one sound, and its filter takes long to design. */
let latest: QuasiPeak468 | null = null;
const quasiPeakAt = (sampleRateHz: number): QuasiPeak468 =>
  (latest = latest?.sampleRateHz === sampleRateHz ? latest : new QuasiPeak468(sampleRateHz));

/** The weighting filter and the detector of BS.468-4; a sine of 1 kHz reads its amplitude. */
export class QuasiPeak468 {
  private readonly taps: Float64Array;
  private readonly scale: number;

  constructor(readonly sampleRateHz: number) {
    this.taps = tapsOf(itu468Weighting, sampleRateHz);
    const sine = sampled(Math.round(2 * sampleRateHz), (i) =>
      Math.sin((2 * Math.PI * 1000 * i) / sampleRateHz),
    );
    this.scale = 1 / this.detect([sine], sine.length >> 1);
  }

  /** The highest reading, full scale = 1. */
  of(x: Samples): number {
    const runIn = Math.round(RUN_IN_SECONDS * this.sampleRateHz);
    const weighting = new FastFir(this.taps);
    const pieces = function* () {
      for (let at = 0; at < x.length; at += PIECE)
        yield weighting.push(new Float64Array(x.subarray(at, at + PIECE)));
    };
    return this.scale * this.detect(pieces(), x.length > 2 * runIn ? runIn : 0);
  }

  /**
   * The highest reading of what is weighted already.
   * @param pieces one after the other, @param from which sample on readings count
   */
  detect(pieces: Iterable<Float64Array>, from: number): number {
    const [first, second] = QUASI_PEAK_FOLLOWERS.map(({ riseSeconds, fallSeconds }) => ({
      rise: 1 - Math.exp(-1 / (riseSeconds * this.sampleRateHz)),
      fall: 1 - Math.exp(-1 / (fallSeconds * this.sampleRateHz)),
    }));
    let [one, two, highest, at] = [0, 0, 0, 0];
    for (const x of pieces) {
      for (let i = 0; i < x.length; i++) {
        const level = Math.abs(x[i]);
        one += (level > one ? first.rise : first.fall) * (level - one);
        two += (one > two ? second.rise : second.fall) * (one - two);
        if (at + i >= from && two > highest) highest = two;
      }
      at += x.length;
    }
    return highest;
  }
}

/** A symmetric filter with a gain of its own at each frequency: the gain as a sum of cosines, windowed. */
function tapsOf(gain: (hz: number) => number, sampleRateHz: number): Float64Array {
  const points = 2048;
  const wanted = sampled(points + 1, (k) => (k === 0 ? 0 : gain((k / (2 * points)) * sampleRateHz)));
  const taps = new Float64Array(2 * HALF_TAPS + 1);
  const cosines = sampled(2 * points, (i) => Math.cos((Math.PI * i) / points));
  for (let n = 0; n <= HALF_TAPS; n++) {
    let sum = wanted[0] / 2 + (wanted[points] / 2) * cosines[(points * n) % (2 * points)];
    for (let k = 1; k < points; k++) sum += wanted[k] * cosines[(k * n) % (2 * points)];
    const window = 0.5 + 0.5 * Math.cos((Math.PI * n) / (HALF_TAPS + 1));
    taps[HALF_TAPS + n] = taps[HALF_TAPS - n] = (sum / points) * window;
  }
  return taps;
}
