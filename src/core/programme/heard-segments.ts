import { meanOf } from "@/core/dsp/mean";
import { median, quantileInPlace } from "@/core/dsp/quantile";
import { sampled } from "@/core/dsp/sampled";
import type { SweepShape } from "@/core/measure/sweep-levels";
import { findSweep } from "./find-sweep";
import type { HeardSegment } from "./heard-segment";
import { Moments } from "./moments";
import { humLines, isHum, type HumLines } from "./hum-lines";
import { restSegments } from "./rest-segments";
import { powerDb as db } from "@/core/dsp/decibels";
import { LINES_PER_FRAME, sumOf as sum, type Peak, type ToneFrames } from "./tone-frames";

const LINKED_WITHIN = 0.02;
/** So many frames may be missing or wild without ending a tone: a drop-out of a seventh of a second. */
const LONGEST_BREAK = 7;
const SHORTEST_TONE_SECONDS = 0.5;
const STEADY_WITHIN = 0.015;
const STEP_DB = 1.2;
const STEP_FRAMES = 14;
const STEP_SPAN_FRAMES = 28;
const STEP_BLUR_FRAMES = 8;
/** Share of the power beside hum that the tone must have. */
const DOMINANCE = 0.4;
const FAINTEST_DBFS = -75;

/**
 * Cuts what was heard into steady tones, sweeps, noises and silences. Speech, music, the edges of bands and the
 * glide of a starting deck belong to none of them. Mains hum beside other sound is passed over. Sweeps are found by
 * the shape they are known to have.
 */
export function heardSegments(frames: ToneFrames, sweeps: readonly SweepShape[] = []): HeardSegment[] {
  const hum = humLines(frames);
  const swept = sweeps.flatMap(
    (shape) => findSweep(frames, shape, (hz, power) => isHum(hz, power, hum)) ?? [],
  );
  const apart = (tone: HeardSegment) =>
    swept.every(
      ({ startSeconds, endSeconds }) =>
        tone.endSeconds < startSeconds + 0.2 || tone.startSeconds > endSeconds - 0.2,
    );
  const tones = chainsOf(frames, hum)
    .flatMap((chain) => steadyParts(chain).flatMap((part) => toneOf(part, frames, hum)))
    .filter(apart);
  const pitched = [...tones, ...swept];
  return [...pitched, ...restSegments(frames, pitched, hum)].sort((a, b) => a.startSeconds - b.startSeconds);
}

/** Runs of frames in which one line dominates and moves little from each to the next. */
function chainsOf(frames: ToneFrames, hum: HumLines): Moments[] {
  const all = Moments.room(frames.length);
  const chains: Moments[] = [];
  let [from, to] = [0, 0];
  const close = () => {
    if ((to - from) * frames.secondsPerFrame >= SHORTEST_TONE_SECONDS) chains.push(all.part(from, to));
    from = to;
  };
  for (let frame = 0; frame < frames.length; frame++) {
    const line = dominant(frames, frame, hum);
    if (to > from && frame - all.frame[to - 1] > LONGEST_BREAK) close();
    if (line === null) continue;
    const hz = frames.hz(frame, line);
    const before = all.hz[to - 1];
    if (to > from && Math.abs(hz / before - 1) > LINKED_WITHIN * (frame - all.frame[to - 1])) {
      // one wild frame does not end a tone that goes on after it
      const goesOn = (step: number) => {
        const ahead = frame + step < frames.length ? dominant(frames, frame + step, hum) : null;
        return ahead !== null && Math.abs(frames.hz(frame + step, ahead) / before - 1) < LINKED_WITHIN;
      };
      if ([1, 2, 3].filter(goesOn).length >= 2) continue;
      close();
    }
    all.put(to++, frame, hz, frames.linePower(frame, line));
  }
  close();
  return chains;
}

/** Which line of a frame dominates it; null where none does. */
function dominant(frames: ToneFrames, frame: number, hum: HumLines): number | null {
  let [strongest, power] = [0, 0];
  let total = sum(frames.power(frame));
  for (let line = 0; line < LINES_PER_FRAME; line++) {
    const own = frames.hz(frame, line);
    if (own === 0) continue;
    const ownPower = frames.linePower(frame, line);
    if (isHum(own, ownPower, hum)) total -= ownPower;
    else if (ownPower > power) [strongest, power] = [line, ownPower];
  }
  if (db(power) < FAINTEST_DBFS || power < DOMINANCE * total) return null;
  return strongest;
}

/** The steady parts of a chain: within a percent or two of one frequency, and cut where the level steps. */
function steadyParts(chain: Moments): Moments[] {
  const parts: Moments[] = [];
  let rest = chain;
  while (rest.length >= STEP_FRAMES) {
    const run = longestSteadyRun(rest);
    if (run.length < STEP_FRAMES) break;
    parts.push(...cutAtSteps(run));
    const after = rest.part(rest.frame.indexOf(run.frame[run.length - 1]) + 1);
    const before = rest.part(0, rest.frame.indexOf(run.frame[0]));
    parts.push(...(before.length >= STEP_FRAMES ? steadyParts(before) : []));
    rest = after;
  }
  return parts;
}

function longestSteadyRun(chain: Moments): Moments {
  let best = chain.part(0, 0);
  for (let i = 0; i < chain.length;) {
    let j = i;
    let wild = 0;
    let middle = median(chain.hz.subarray(i, i + STEP_FRAMES));
    for (; j < chain.length; j++) {
      if (Math.abs(chain.hz[j] / middle - 1) > STEADY_WITHIN) {
        if (++wild > LONGEST_BREAK) break;
      } else {
        wild = 0;
        middle += 0.02 * (chain.hz[j] - middle);
      }
    }
    const end = j - wild;
    const run = chain.part(i, end).near(middle, 2 * STEADY_WITHIN);
    if (run.length > best.length) best = run;
    i = Math.max(end, i + STEP_FRAMES);
  }
  return best;
}

/**
 * Cuts where the level steps: the medians over the half-second before and after differ, and both sides stand
 * still compared with the step, so that beats, fades and a trembling channel are left whole.
 */
function cutAtSteps(run: Moments): Moments[] {
  const steps = stepsOf(run.power.map(db));
  const isHighest = (i: number) => {
    const to = Math.min(steps.length - 1, i + STEP_FRAMES);
    for (let k = Math.max(0, i - STEP_FRAMES); k <= to; k++) if (steps[k] > steps[i]) return false;
    return true;
  };
  const parts: Moments[] = [];
  let from = 0;
  for (let i = STEP_FRAMES; i + STEP_FRAMES <= run.length; i++) {
    if (steps[i] < STEP_DB || !isHighest(i)) continue;
    parts.push(run.part(from, i));
    from = i;
    i += STEP_FRAMES;
  }
  parts.push(run.part(from));
  return parts;
}

/** With fewer levels on one side of a frame there is no step. */
const FEWEST_LEVELS = 5;

/**
 * Height of the level step at each frame in dB, 0 where there is none: of the levels before and after, their median and how
 * far apart all but a few lie. The window of a frame blurs the edge itself.
 */
function stepsOf(level: Float64Array): Float64Array {
  const { length } = level;
  const span = STEP_SPAN_FRAMES - STEP_BLUR_FRAMES;
  // what comes after one frame is what was before a later one
  const later = STEP_SPAN_FRAMES + STEP_BLUR_FRAMES;
  const middles = new Float64Array(length + later).fill(NaN);
  const spreads = new Float64Array(length + later);
  const within = (place: number) => Math.min(length, Math.max(0, place));
  const room = new Float64Array(span);
  for (let i = 0; i < middles.length; i++) {
    const [from, to] = [within(i - STEP_SPAN_FRAMES), within(i - STEP_BLUR_FRAMES)];
    const count = to - from;
    if (count < FEWEST_LEVELS) continue;
    room.set(level.subarray(from, to));
    const sorted = room.subarray(0, count).sort();
    middles[i] = sorted[count >> 1];
    spreads[i] = sorted[Math.floor(0.9 * (count - 1))] - sorted[Math.floor(0.1 * (count - 1))];
  }
  return sampled(length, (i) => {
    const height = Math.abs(middles[i + later] - middles[i]);
    return Math.max(spreads[i], spreads[i + later]) < 0.5 * height ? height : 0;
  });
}

function toneOf(part: Moments, frames: ToneFrames, hum: HumLines): HeardSegment[] {
  if (part.length < 4) return [];
  const core = part.part(Math.min(4, part.length >> 2), Math.max(part.length - 4, (3 * part.length) >> 2));
  const frequencyHz = median(core.hz);
  const power = median(core.power);
  const startSeconds = edge(frames, part.frame[0], -1, frequencyHz, power);
  const endSeconds = edge(frames, part.frame[part.length - 1], 1, frequencyHz, power);
  if (endSeconds - startSeconds < SHORTEST_TONE_SECONDS) return [];
  if (isHum(frequencyHz, power, hum)) return [];
  const mean = meanOf(core.hz);
  return [
    {
      kind: "tone",
      startSeconds,
      endSeconds,
      frequencyHz: Math.abs(mean / frequencyHz - 1) < STEADY_WITHIN ? mean : frequencyHz,
      toFrequencyHz: 0,
      ...levels(core, frames),
    },
  ];
}

/** The strongest line near a frequency, whichever rank it has in the frame. */
function lineNear(frames: ToneFrames, frame: number, hz: number): Peak {
  let best: Peak = { hz, left: 0, right: 0 };
  for (let line = 0; line < LINES_PER_FRAME; line++)
    if (Math.abs(frames.hz(frame, line) / hz - 1) < 0.08 && frames.linePower(frame, line) > sum(best))
      best = frames.peak(frame, line);
  return best;
}

/**
 * Where a tone begins or ends: half the power of a Hann window is left when its middle stands on the edge of the
 * tone; between two levels, half of the difference.
 */
function edge(frames: ToneFrames, from: number, way: -1 | 1, hz: number, power: number): number {
  const at = (frame: number) =>
    frame < 0 || frame >= frames.length ? 0 : sum(lineNear(frames, frame, hz)) / power;
  const beyond = median([6, 8, 10, 12].map((step) => at(from + way * (step + 4))));
  const outside = beyond > 1.25 || (beyond > 0.1 && beyond < 0.8) ? beyond : 0;
  const half = (1 + outside) / 2;
  const inside = (value: number) => (outside > 1 ? value < half : value > half);
  let frame = from;
  for (let steps = 0; steps < 16 && !inside(at(frame)); steps++) frame -= way;
  for (let steps = 0; steps < 24 && inside(at(frame + way)); steps++) frame += way;
  const [here, next] = [at(frame), at(frame + way)];
  const share = here === next ? 0.5 : Math.min(1, Math.max(0, (here - half) / (here - next)));
  return Math.max(0, frames.secondsOf(frame + way * share));
}

function levels(moments: Moments, frames: ToneFrames): { leftDb: number; rightDb: number } {
  const left = new Float64Array(moments.length);
  const right = new Float64Array(moments.length);
  for (let i = 0; i < moments.length; i++) {
    const peak = lineNear(frames, moments.frame[i], moments.hz[i]);
    left[i] = peak.left;
    right[i] = peak.right;
  }
  return { leftDb: db(quantileInPlace(left, 0.5)), rightDb: db(quantileInPlace(right, 0.5)) };
}
