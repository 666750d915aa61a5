import type { Samples } from "@/core/dsp/signal";
import { powerDb } from "@/core/dsp/decibels";
import { fftWorkspace } from "@/core/dsp/fft-workspace";
import { lineThrough } from "@/core/dsp/line-fit";
import { median } from "@/core/dsp/quantile";
import { withoutHum, type HumClearing } from "./without-hum";
import { seriesBetween, type WideLevel } from "./wide-levels";
import { sampled } from "@/core/dsp/sampled";

/** A logarithmic sweep at right tape speed. */
export interface SweepShape {
  frequencyHz: number;
  toFrequencyHz: number;
  seconds: number;
}

/** Where a sweep lies in a piece of sound. */
export interface SweepPlace {
  /** Of its first sample, re the first sample of the sound; negative when that came later. */
  startSeconds: number;
  /** Speed of the tape relative to right. */
  speedRatio: number;
}

/** Half of the stretch that one frequency is measured in. */
const HALF_STRETCH_OCTAVES = 1 / 12;
const FEWEST_CYCLES = 8;
const APART_FROM_ENDS = 1.03;
/** Flutter's sidebands lie inside this part of the frequency, and so does an error of the place. */
const HALF_WIDTH = 0.02;
const SEARCH = 0.05;
/** The window's main lobe, in lines. */
const LOBE_LINES = 2;
const NEIGHBOURS = 2;
const LEAST_UNCERTAINTY_DB = 0.02;

/**
 * Level of each channel along a logarithmic sweep, at the frequencies of the R 20 series that have passed. The sound is
 * turned back by the phase of the sweep that was recorded, a stretch of a sixth of an octave at a time, which leaves a
 * line at 0 Hz with the sidebands that flutter gives it; their power together is the tone's, whatever the time base
 * did. Hum is taken out first.
 * @param channels one or two, of the same length; they may begin or end in the middle of the sweep
 * @param place known to a tenth of a second and a percent; it is found more exactly from the sound
 * @param mayOverwrite the channels are nobody else's: hum is taken out of them where they are
 */
export function sweepLevels(
  channels: readonly Samples[],
  sampleRateHz: number,
  shape: SweepShape,
  place: SweepPlace,
  mayOverwrite = false,
): WideLevel[][] {
  const clearing = { ...sweepsHum(shape, place), mayOverwrite };
  const clean = channels.map((x) => withoutHum(x, sampleRateHz, clearing).samples);
  const known = refined(clean, sampleRateHz, shape, place);
  const points = sweepFrequencies(shape, known, sampleRateHz, channels[0].length).flatMap(
    (frequencyHz) => stretchAt(clean, sampleRateHz, shape, known, frequencyHz) ?? [],
  );
  return channels.map((_, c) => {
    const levels = points.map(({ levelsDb }) => levelsDb[c]);
    return points.map(({ frequencyHz }, i) => {
      const spreadDb = strayDb(levels, i);
      const uncertaintyDb = Math.hypot(LEAST_UNCERTAINTY_DB, spreadDb);
      return { frequencyHz, levelDb: levels[i], spreadDb, uncertaintyDb };
    });
  });
}

/** The sweep's own ends and the frequencies of the series between them, those whose stretch lies in the sound. */
function sweepFrequencies(shape: SweepShape, place: SweepPlace, rate: number, count: number): number[] {
  const { frequencyHz, toFrequencyHz } = shape;
  const [low, high] = [Math.min(frequencyHz, toFrequencyHz), Math.max(frequencyHz, toFrequencyHz)];
  const inside = seriesBetween(low * APART_FROM_ENDS, high / APART_FROM_ENDS);
  return [low, ...inside, high].filter((hz) => {
    const { from, to } = stretchOf(shape, place, hz);
    return from >= 0 && to * rate <= count && hz * place.speedRatio * (1 + SEARCH) < 0.48 * rate;
  });
}

/** Natural logarithm of the frequency that passes in each second, at the speed it plays with. */
const growth = ({ frequencyHz, toFrequencyHz, seconds }: SweepShape, { speedRatio }: SweepPlace) =>
  (Math.log(toFrequencyHz / frequencyHz) / seconds) * speedRatio;

function stretchOf(shape: SweepShape, place: SweepPlace, frequencyHz: number) {
  const rise = growth(shape, place);
  const ends = place.startSeconds + shape.seconds / place.speedRatio;
  const middle = place.startSeconds + Math.log(frequencyHz / shape.frequencyHz) / rise;
  const least = FEWEST_CYCLES / 2 / frequencyHz;
  const half = Math.max((HALF_STRETCH_OCTAVES * Math.LN2) / Math.abs(rise), least);
  // near the ends of the sweep as much as there is; at the ends themselves a shorter one moved inside
  const shortest = Math.max(least, half / 4);
  const room = Math.max(shortest, Math.min(half, middle - place.startSeconds, ends - middle));
  const at = Math.min(Math.max(middle, place.startSeconds + room), ends - room);
  return { from: at - room, to: at + room, hertz: frequencyHz * Math.exp(rise * (at - middle)) };
}

interface Stretch {
  frequencyHz: number;
  levelsDb: number[];
  /** How far off its place the line was found, share of the frequency. */
  off: number;
  middleSeconds: number;
}

/** For the turning back of a stretch, used again for the next. */
let turnRoom = new Float64Array(0);

function stretchAt(
  channels: readonly Samples[],
  rate: number,
  shape: SweepShape,
  place: SweepPlace,
  frequencyHz: number,
): Stretch | null {
  const { from, to, hertz } = stretchOf(shape, place, frequencyHz);
  const first = Math.ceil(from * rate);
  const count = Math.floor(to * rate) - first;
  if (first < 0 || count < 16 || first + count > channels[0].length) return null;
  const size = 2 ** Math.ceil(Math.log2(count));
  const { fft, input, output } = fftWorkspace(size);
  const rise = Math.log(shape.toFrequencyHz / shape.frequencyHz) / shape.seconds;
  if (turnRoom.length < 2 * count) turnRoom = new Float64Array(2 * count);
  const turn = turnRoom;
  let windowPower = 0;
  for (let i = 0; i < count; i++) {
    const tape = place.speedRatio * ((first + i) / rate - place.startSeconds);
    const phase = ((2 * Math.PI * shape.frequencyHz) / rise) * Math.expm1(rise * tape);
    const window = 1 - Math.cos((2 * Math.PI * (i + 0.5)) / count);
    turn[2 * i] = window * Math.cos(phase);
    turn[2 * i + 1] = -window * Math.sin(phase);
    windowPower += window * window;
  }
  const binHz = rate / size;
  const heardHz = hertz * place.speedRatio;
  const lobe = LOBE_LINES * (size / count);
  const search = Math.ceil((SEARCH * heardHz) / binHz + lobe);
  const powers = channels.map((x) => {
    input.fill(0);
    for (let i = 0; i < count; i++) {
      input[2 * i] = x[first + i] * turn[2 * i];
      input[2 * i + 1] = x[first + i] * turn[2 * i + 1];
    }
    fft.transform(output, input);
    return sampled(2 * search + 1, (j) => {
      const k = (j - search + size) % size;
      return output[2 * k] ** 2 + output[2 * k + 1] ** 2;
    });
  });
  const half = Math.min(search, Math.ceil((HALF_WIDTH * heardHz) / binHz + lobe));
  const middle = middleOf(powers, half);
  const within = (power: Float64Array) => {
    let sum = 0;
    for (let j = Math.max(0, middle - half); j <= Math.min(power.length - 1, middle + half); j++)
      sum += power[j];
    return sum;
  };
  return {
    frequencyHz: hertz,
    // of a sine of amplitude a the line at 0 Hz has a/2
    levelsDb: powers.map((power) => powerDb((4 * within(power)) / size / windowPower)),
    off: ((middle - search) * binHz) / heardHz,
    middleSeconds: (from + to) / 2,
  };
}

/** Where the most power lies together, both channels counted: its centre of gravity, in bins. */
function middleOf(powers: Float64Array[], half: number): number {
  const total = powers[0].map((_, j) => powers.reduce((sum, power) => sum + power[j], 0));
  let [best, most, running] = [0, -1, 0];
  const width = Math.max(1, half >> 1);
  for (let j = 0; j < total.length; j++) {
    running += total[j] - (j >= width ? total[j - width] : 0);
    if (running > most) [best, most] = [j, running];
  }
  let [weighted, sum] = [0, 0];
  for (let j = Math.max(0, best - width + 1); j <= best; j++) {
    weighted += j * total[j];
    sum += total[j];
  }
  return sum > 0 ? Math.round(weighted / sum) : total.length >> 1;
}

/** The place is told by so many of the frequencies: four to the decade. */
const REFINED_BY_EACH = 5;
const LEAST_FOR_LINE = 3;

/** The place as the lines themselves tell it: a late start shifts them all alike, another speed more and more. */
function refined(channels: readonly Samples[], rate: number, shape: SweepShape, place: SweepPlace) {
  let known = place;
  for (let round = 0; round < 2; round++) {
    const all = sweepFrequencies(shape, known, rate, channels[0].length);
    const found = all
      .filter((hz, i) => i % REFINED_BY_EACH === 0 && hz > shape.frequencyHz * 2)
      .flatMap((hz) => stretchAt(channels, rate, shape, known, hz) ?? []);
    if (found.length < LEAST_FOR_LINE) return known;
    // ln of heard over expected = rise·(time that it is early) + what the speed adds with time
    const usual = median(found.map(({ off }) => off));
    const near = found.filter(({ off }) => Math.abs(off - usual) < SEARCH / 2);
    if (near.length < LEAST_FOR_LINE) return known;
    const { start, slope } = lineThrough(
      near.map(({ middleSeconds, off }) => [middleSeconds - known.startSeconds, Math.log1p(off)] as const),
    );
    // heard: r·f·exp(k·r·(t − s)); with r′ = r(1+e), s′: ln = ln r + ε + …; solved for the two small changes
    const rise = growth(shape, known);
    const change = slope / rise;
    const speedRatio = known.speedRatio * (1 + change);
    const startSeconds = known.startSeconds - (start - change) / rise;
    known = { speedRatio, startSeconds };
  }
  return known;
}

/** How far a point lies from the line between its neighbours, as a standard deviation over a few of them. */
function strayDb(levels: number[], i: number): number {
  const strays: number[] = [];
  for (let j = Math.max(1, i - NEIGHBOURS); j <= Math.min(levels.length - 2, i + NEIGHBOURS); j++) {
    const before = levels[j - 1];
    const after = levels[j + 1];
    // what a bend of the curve makes of it is the same for all of them and drops out below
    strays.push(levels[j] - (before + after) / 2);
  }
  if (strays.length < 2) return 0;
  const mean = strays.reduce((a, b) => a + b, 0) / strays.length;
  const square = strays.reduce((sum, stray) => sum + (stray - mean) ** 2, 0) / (strays.length - 1);
  return Math.sqrt(square / 1.5);
}

/** Where hum can be learned beside a sweep. */
function sweepsHum(shape: SweepShape, place: SweepPlace): HumClearing {
  const rise = growth(shape, place);
  const hertzAt = (seconds: number) =>
    shape.frequencyHz * place.speedRatio * Math.exp(rise * (seconds - place.startSeconds));
  const ends = place.startSeconds + shape.seconds / place.speedRatio;
  return {
    isClear: (seconds, humHz) =>
      seconds < place.startSeconds ||
      seconds > ends ||
      Math.abs(Math.log2(hertzAt(seconds) / humHz)) > CLEAR_OCTAVES,
    wantedAt: (humHz) => place.startSeconds + Math.log(humHz / shape.frequencyHz / place.speedRatio) / rise,
  };
}
/** The sweep is no hum when it is so far from it. */
const CLEAR_OCTAVES = 0.5;
