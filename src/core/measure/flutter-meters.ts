import { MagnitudeCounts } from "@/core/dsp/magnitude-counts";
import { eachPiece, type Values } from "@/core/dsp/values";
import { readPlaces, throughPath, type FlutterPath } from "./flutter-paths";
import { QuasiPeakMeter } from "./quasi-peak";

/** The four ways a flutter figure is written, percent of the carrier. */
export interface FlutterMeters {
  /** Quasi-peak, IEC 60386 and DIN 45507: ±1 % at 4 Hz reads 1. */
  peakPercent: number;
  /** Magnitude exceeded 5 % of the time, AES6: ±1 % reads 0.997. */
  twoSigmaPercent: number;
  /** Root mean square, JIS C 5551: ±1 % reads 0.707. */
  rmsPercent: number;
  /** Full-wave average in RMS of a sinusoid, NAB: ±1 % reads 0.707. */
  averagePercent: number;
}

/** Blocks by which chance is judged: as many as there are of this length, at most this many. */
const CHANCE_BLOCK_SECONDS = 2.5;
const MOST_CHANCE_BLOCKS = 12;

/** A path as its meters read it, and the RMS of even blocks of it, as a fraction; none of what is too short for two. */
export interface PathRead {
  meters: FlutterMeters;
  blocksRms: number[];
}

/** All four meters of a deviation without its trend, through one path. */
export function readPath(path: FlutterPath, steady: Values, rateHz: number): PathRead {
  const { from, to } = readPlaces(path, steady.length, rateHz);
  const length = to - from;
  const peak = new QuasiPeakMeter(rateHz);
  const counts = new MagnitudeCounts();
  const blocks = Math.min(MOST_CHANCE_BLOCKS, Math.floor(length / (CHANCE_BLOCK_SECONDS * rateHz)));
  const blockLength = Math.floor(length / Math.max(1, blocks));
  const blocksRms: number[] = [];
  const sums = { squares: 0, magnitudes: 0, block: 0, left: blockLength };
  throughPath(path, steady, rateHz, (piece, at) => {
    const first = Math.max(0, from - at);
    // a Hann window, its cosine turned on from place to place: broken turns of slow wow count less
    const step = (2 * Math.PI) / length;
    const begins = step * (at + first - from + 0.5);
    const turnCos = Math.cos(step);
    const turnSin = Math.sin(step);
    let c = Math.cos(begins);
    let s = Math.sin(begins);
    let squares = 0;
    let magnitudes = 0;
    let block = sums.block;
    let left = sums.left;
    for (let i = first; i < piece.length; i++) {
      const magnitude = Math.abs(piece[i]);
      const square = magnitude * magnitude;
      squares += (1 - c) * square;
      magnitudes += (1 - c) * magnitude;
      block += square;
      if (--left === 0) {
        blocksRms.push(Math.sqrt(block / blockLength));
        block = 0;
        left = blockLength;
      }
      const turned = c * turnCos - s * turnSin;
      s = s * turnCos + c * turnSin;
      c = turned;
    }
    sums.squares += squares;
    sums.magnitudes += magnitudes;
    sums.block = block;
    sums.left = left;
    counts.add(piece, first);
    peak.push(piece, first);
  });
  return {
    meters: {
      peakPercent: 100 * peak.peak,
      twoSigmaPercent: 100 * counts.quantile(0.95),
      rmsPercent: 100 * Math.sqrt(sums.squares / length),
      averagePercent: 100 * (sums.magnitudes / length) * (Math.PI / 2 / Math.SQRT2),
    },
    blocksRms: blocksRms.slice(0, blocks),
  };
}

/** RMS of a deviation without its trend through one path, as a fraction. */
export function rmsThrough(path: FlutterPath, steady: Values, rateHz: number): number {
  const { from, to } = readPlaces(path, steady.length, rateHz);
  let squares = 0;
  throughPath(path, steady, rateHz, (piece, at) => {
    squares += squaresOf(piece, Math.max(0, from - at));
  });
  return Math.sqrt(squares / (to - from));
}

/** RMS of values from one place up to another. */
export function rmsOf(values: Values, places: { from: number; to: number }): number {
  let squares = 0;
  eachPiece(values, places, (piece) => {
    squares += squaresOf(piece, 0);
  });
  return Math.sqrt(squares / (places.to - places.from));
}

function squaresOf(piece: Float64Array, from: number): number {
  let sum = 0;
  for (let i = from; i < piece.length; i++) sum += piece[i] * piece[i];
  return sum;
}
