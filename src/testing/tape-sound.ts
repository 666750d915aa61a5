import { harmonicSum } from "./sine-wave";
import { amplitudeOf } from "@/core/dsp/decibels";
import type { Band } from "@/core/reference/reference-tape";
import { whiteNoise } from "./fm-tone";
import { sampled } from "@/core/dsp/sampled";

/** One piece of a recording: a band, or part of one, or something else between the bands. */
export type Piece =
  | { kind: "band"; index: number; from?: number; to?: number }
  | { kind: "silence"; seconds: number }
  | { kind: "speech"; seconds: number }
  | { kind: "wind"; index: number };

export interface TapeSoundOptions {
  speedPercent?: number;
  /** dBFS of the peak of a 0 dB tone. */
  referenceDbfs?: number;
  humDbfs?: number;
  noiseDbfs?: number;
  flutterPercent?: number;
  /** Loss in dB at 10 kHz, growing with frequency. */
  trebleLossDb?: number;
}

export interface TapeSound {
  left: Float64Array;
  right: Float64Array;
  /** Where each piece that is a band begins and ends, in seconds. */
  places: Array<{ index: number; start: number; end: number }>;
}

const WIND_SPEED = 18;

/**
 * A played tape in closed form, for tests; it shares no code with the practice machine. The right channel is half a
 * decibel down.
 */
export function tapeSound(
  bands: readonly Band[],
  pieces: Piece[],
  rate: number,
  options: TapeSoundOptions = {},
): TapeSound {
  const { speedPercent = 0, referenceDbfs = -12, humDbfs, noiseDbfs = -65 } = options;
  const ratio = 1 + speedPercent / 100;
  const parts: Float64Array[] = [];
  const places: TapeSound["places"] = [];
  let at = 0;
  for (const piece of pieces) {
    const part = soundOf(piece, bands, rate, ratio, options, referenceDbfs);
    if (piece.kind === "band")
      places.push({ index: piece.index, start: at / rate, end: (at + part.length) / rate });
    parts.push(part);
    at += part.length;
  }
  const left = new Float64Array(at);
  let to = 0;
  for (const part of parts) {
    left.set(part, to);
    to += part.length;
  }
  const right = left.map((v) => v * amplitudeOf(-0.5));
  const hum = humDbfs === undefined ? 0 : amplitudeOf(humDbfs);
  const noise = [whiteNoise(at, amplitudeOf(noiseDbfs), 11), whiteNoise(at, amplitudeOf(noiseDbfs), 12)];
  for (let i = 0; i < at; i++) {
    const mains = hum && hum * harmonicSum((50 * i) / rate, [1, 0, 0.5, 0, 0.3]);
    left[i] += mains + noise[0][i];
    right[i] += mains + noise[1][i];
  }
  return { left, right, places };
}

function soundOf(
  piece: Piece,
  bands: readonly Band[],
  rate: number,
  ratio: number,
  { flutterPercent = 0.1, trebleLossDb = 4 }: TapeSoundOptions,
  referenceDbfs: number,
): Float64Array {
  if (piece.kind === "silence") return new Float64Array(Math.round(piece.seconds * rate));
  if (piece.kind === "speech") return speech(piece.seconds, rate).map((v) => v * amplitudeOf(referenceDbfs));
  const band = bands[piece.index];
  if (piece.kind === "wind") {
    // the tone backwards and many times too fast
    const n = Math.round((band.seconds / WIND_SPEED) * rate);
    const hz = band.frequencyHz * WIND_SPEED;
    if (hz > 0.45 * rate) return new Float64Array(n);
    return sampled(n, (i) => 0.1 * Math.sin((-2 * Math.PI * hz * i) / rate));
  }
  const [from, to] = [piece.from ?? 0, piece.to ?? band.seconds];
  const n = Math.round(((to - from) / ratio) * rate);
  const loss = (trebleLossDb * Math.max(0, band.frequencyHz - 1000)) / 9000;
  const gain = amplitudeOf(referenceDbfs + band.levelDb - loss);
  if (band.kind === "silence") return new Float64Array(n);
  if (band.kind === "noise") return whiteNoise(n, gain / Math.SQRT2, 5);
  const peak = flutterPercent / 100;
  const span = Math.log((band.toFrequencyHz ?? 1) / band.frequencyHz);
  return sampled(n, (i) => {
    const t = i / rate;
    const tape = from + ratio * (t - (peak * Math.cos(2 * Math.PI * 4 * t)) / (2 * Math.PI * 4));
    const cycles =
      band.kind === "tone"
        ? band.frequencyHz * tape
        : ((band.frequencyHz * band.seconds) / span) * Math.expm1((tape / band.seconds) * span);
    return gain * Math.sin(2 * Math.PI * cycles);
  });
}

const VOICE = Array.from({ length: 19 }, (_, n) => 1 / (1 + ((n + 1) / 6) ** 2));

/** Voiced syllables: a wandering pitch with its harmonics, opened and closed a few times a second. */
function speech(seconds: number, rate: number): Float64Array {
  let phase = 0;
  return sampled(Math.round(seconds * rate), (i) => {
    const t = i / rate;
    phase +=
      (120 * (1 + 0.2 * Math.sin(2 * Math.PI * 0.9 * t) + 0.04 * Math.sin(2 * Math.PI * 5 * t))) / rate;
    const open = Math.max(0, Math.sin(2 * Math.PI * 3.3 * t));
    return 0.15 * open * harmonicSum(phase, VOICE);
  });
}
