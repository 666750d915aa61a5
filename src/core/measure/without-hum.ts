import type { Samples } from "@/core/dsp/signal";
import { FirDecimator } from "@/core/dsp/fir-decimator";
import { kaiserLowpass } from "@/core/dsp/kaiser-lowpass";
import { summitNear } from "@/core/dsp/spectral-summit";
import { sampled } from "@/core/dsp/sampled";

/** Where hum can be learned, and which of it matters. */
export interface HumClearing {
  /** Whether nothing else is near a hum frequency at a time; always when left out. */
  isClear?(seconds: number, humHz: number): boolean;
  /** When the sound that is to be measured passes a hum frequency; it is learned around that time. */
  wantedAt?(humHz: number): number;
  /** Whether a line is in the way at all. */
  matters?(humHz: number): boolean;
  /** What is given is nobody else's and may be written over: of a long sound no copy is made. */
  mayOverwrite?: boolean;
}

const MAINS_HZ = [50, 60] as const;
const HIGHEST_HZ = 600;
/** Where hum is looked for: the multiples of both mains frequencies. */
export const HUM_LINES_HZ: ReadonlySet<number> = new Set(
  MAINS_HZ.flatMap((mains) =>
    Array.from({ length: Math.floor(HIGHEST_HZ / mains) }, (_, i) => (i + 1) * mains),
  ),
);
/** A whole number of cycles of every multiple of 50 and 60 Hz, so that they do not see each other. */
const BLOCK_SECONDS = 0.1;
/** The mains may be off by so much, and holds its frequency for about so long. */
const MAINS_OFF = 0.004;
const LEARNED_WITHIN_SECONDS = 10;
const FEWEST_BLOCKS = 12;
/** A line fainter than so many standard errors is none. */
const STANDS_OUT = 4;
/** Under the tone, away from where a line was learned, more of it may be left than there. */
const WANDERS_ON = 1.5;

/** Hum is learned from what lies below this, at a rate of about that. */
const LOW_HZ = 620;
const LOW_RATE_HZ = 2000;
const STOPPED_DB = 80;

/** A sound without its hum, and what may be left of it. */
export interface WithoutHum {
  /** As precise as what was given; what was given itself where nothing was taken away. */
  samples: Samples;
  /**
   * Amplitude of hum that the taking away may have left, or made: what the lines that were learned leave of themselves
   * where nothing else plays, since the mains wander. 0 where none was taken away.
   */
  leftOver: number;
}

/**
 * The sound with its mains hum taken away, each line as a sine of its own frequency, strength and phase (least
 * squares), learned where nothing else is near it. Lines that do not stand out of the rest are left alone.
 */
export function withoutHum(x: Samples, sampleRateHz: number, clearing: HumClearing = {}): WithoutHum {
  let samples: Samples | null = null;
  const low = lowBand(x, sampleRateHz);
  let leftOver = 0;
  for (const hz of HUM_LINES_HZ) {
    if (clearing.matters?.(hz) === false) continue;
    const line = learned(low, hz, clearing);
    if (!line) continue;
    leftOver += line.leftOver;
    subtract(low, line);
    samples ??= clearing.mayOverwrite ? x : x.slice();
    subtract({ samples, rateHz: sampleRateHz, startSeconds: 0 }, line);
  }
  return { samples: samples ?? x, leftOver };
}

/** Sound on the clock of what was given. */
interface Narrowed {
  samples: Samples;
  rateHz: number;
  /** Of the first sample. */
  startSeconds: number;
}

/** What lies below the highest line, at so low a rate that a block is a whole number of samples. */
function lowBand(x: Samples, rate: number): Narrowed {
  const perBlock = Math.round(rate * BLOCK_SECONDS);
  let factor = Math.max(1, Math.floor(rate / LOW_RATE_HZ));
  while (perBlock % factor !== 0) factor--;
  const rateHz = rate / factor;
  const decimator = new FirDecimator(kaiserLowpass(rate, LOW_HZ, rateHz - LOW_HZ, STOPPED_DB), factor);
  return { samples: decimator.push(x).re, rateHz, startSeconds: decimator.delaySamples / rate };
}

interface HumSine {
  frequencyHz: number;
  /** Amplitude with phase at time 0. */
  re: number;
  im: number;
  /** Amplitude of what it leaves where it was learned. */
  leftOver: number;
}

function learned(low: Narrowed, hz: number, clearing: HumClearing): HumSine | null {
  const { isClear, wantedAt } = clearing;
  const wanted = wantedAt?.(hz);
  const blocks: Array<{ at: number; re: number; im: number }> = [];
  const length = Math.round(BLOCK_SECONDS * low.rateHz);
  const count = Math.floor(low.samples.length / length);
  for (let b = 0; b < count; b++) {
    const at = low.startSeconds + (b + 0.5) * BLOCK_SECONDS;
    if (wanted !== undefined && Math.abs(at - wanted) > LEARNED_WITHIN_SECONDS) continue;
    if (isClear?.(at, hz) === false) continue;
    blocks.push({ at, ...mixed(low, hz, b * length, length) });
  }
  if (blocks.length < FEWEST_BLOCKS) return null;
  const sum = (offHz: number) => {
    let [re, im] = [0, 0];
    for (const block of blocks) {
      const [c, s] = [Math.cos(2 * Math.PI * offHz * block.at), Math.sin(2 * Math.PI * offHz * block.at)];
      re += block.re * c + block.im * s;
      im += block.im * c - block.re * s;
    }
    return { re: re / blocks.length, im: im / blocks.length };
  };
  const power = (offHz: number) => {
    const { re, im } = sum(offHz);
    return re * re + im * im;
  };
  const span = blocks.at(-1)!.at - blocks[0].at;
  const step = 1 / (8 * span);
  const reach = Math.ceil((MAINS_OFF * hz) / step);
  const powers = sampled(2 * reach + 3, (i) => power((i - reach - 1) * step));
  let top = reach + 1;
  for (let i = 1; i < powers.length - 1; i++) if (powers[i] > powers[top]) top = i;
  const best = (top - reach - 1 + summitNear(powers, top).shift) * step;
  const { re, im } = sum(best);
  const rest = blocks.reduce((total, block) => total + block.re ** 2 + block.im ** 2, 0) / blocks.length;
  const noise = Math.max(0, rest - re * re - im * im) / blocks.length;
  if (re * re + im * im < STANDS_OUT ** 2 * noise) return null;
  // a mains that wanders is no sine: what is left of it there is left of it under the tone too, and more
  const unexplained = Math.max(0, rest - re * re - im * im);
  const leftOver = WANDERS_ON * 2 * Math.sqrt(unexplained);
  return { frequencyHz: hz + best, re: 2 * re, im: 2 * im, leftOver };
}

/** Mean of a block turned back by a frequency. */
function mixed(narrowed: Narrowed, hz: number, from: number, length: number) {
  let [re, im] = [0, 0];
  eachPhase(narrowed, hz, from, from + length, (i, cos, sin) => {
    re += narrowed.samples[i] * cos;
    im -= narrowed.samples[i] * sin;
  });
  return { re: re / length, im: im / length };
}

function subtract(narrowed: Narrowed, { frequencyHz, re, im }: HumSine): void {
  eachPhase(narrowed, frequencyHz, 0, narrowed.samples.length, (i, cos, sin) => {
    narrowed.samples[i] -= re * cos - im * sin;
  });
}

/** So many turns in a row lose nothing that could be seen. */
const TURNS_IN_A_ROW = 4096;

/** Cosine and sine of a frequency at each sample, turned from one to the next. */
function eachPhase(
  { rateHz, startSeconds }: Narrowed,
  hz: number,
  from: number,
  to: number,
  each: (i: number, cos: number, sin: number) => void,
): void {
  const step = (2 * Math.PI * hz) / rateHz;
  const first = 2 * Math.PI * hz * startSeconds;
  const [c, s] = [Math.cos(step), Math.sin(step)];
  let [cos, sin] = [0, 0];
  for (let i = from; i < to; i++) {
    if ((i - from) % TURNS_IN_A_ROW === 0)
      [cos, sin] = [Math.cos(first + step * i), Math.sin(first + step * i)];
    each(i, cos, sin);
    const next = cos * c - sin * s;
    sin = sin * c + cos * s;
    cos = next;
  }
}
