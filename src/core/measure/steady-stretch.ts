import { median, quantileInPlace } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";
import type { DeviationTrack } from "./deviation-track";

/** Below this fraction of its usual amplitude the tone counts as gone. */
const PRESENT = 0.25;
/** Shorter losses are drop-outs inside one stretch, longer ones end it. */
const LONGEST_DROPOUT_SECONDS = 0.1;
/** Kept clear of every edge, where the filters see half tone, half silence. */
const EDGE_SECONDS = 0.06;

/** A jump of the tone's phase is a spike no longer than this: no part of a machine is so quick. */
const JUMP_SECONDS = 0.0026;
/** Half as high as at its top it is so soon before and after. */
const NARROW_SECONDS = 0.0019;
const SMALLEST_JUMP = 0.0015;
const JUMP_SCATTERS = 8;

const SHORTEST_SECONDS = 0.25;
const LARGEST_START_DEVIATION = 0.01;
/** Left out after the start: what is left of a run-up of a second's length. */
const RUN_UP_BLOCKS = 8;

export interface SteadyStretch {
  startSeconds: number;
  rateHz: number;
  /** Deviation from nominal as a fraction, drop-outs bridged by straight lines. */
  deviation: Samples;
  /** The tone's amplitude beside it; bridged where the deviation is. */
  amplitude: Samples;
  /** Where it was bridged. */
  bridged: Bridge[];
  dropouts: number;
  /** Places where the tone jumped, because samples were lost or the tape is spliced; bridged too. */
  jumps: number;
  /** Tone that was left out at the ends because the deck was still getting up to speed or running down. */
  unsteadySeconds: number;
}

/** A place of a stretch, in elements, that was bridged by a straight line. */
export interface Bridge {
  from: number;
  to: number;
  /** Sound that never arrived, not a drop-out of the tape. */
  lost: boolean;
}

/** The stretch without its first elements. */
export function cutStart<S extends SteadyStretch>(stretch: S, elements: number): S {
  const skip = Math.max(0, Math.min(stretch.deviation.length, elements));
  const bridged = stretch.bridged
    .filter(({ to }) => to > skip)
    .map((one) => ({ ...one, from: Math.max(0, one.from - skip), to: one.to - skip }));
  return {
    ...stretch,
    startSeconds: stretch.startSeconds + skip / stretch.rateHz,
    deviation: stretch.deviation.subarray(skip),
    amplitude: stretch.amplitude.subarray(skip),
    bridged,
    jumps: bridged.filter(({ lost }) => lost).length,
  };
}

/**
 * The longest stretch of a track in which the tone is there, without the run-up and the run-down of the deck. From
 * `fromSeconds` on, of a live source, it is the one that plays now, run-up and all: a longer one that has ended before
 * tells nothing of it.
 * Returns null where there is none of at least a quarter of a second.
 * @param inPlace the stretch is the track's own values, bridged there, not a copy: for a track that nothing is added to
 */
export function steadyStretch(
  track: DeviationTrack,
  fromSeconds?: number,
  inPlace = false,
): SteadyStretch | null {
  const first = Math.max(0, Math.ceil(((fromSeconds ?? -Infinity) - track.startSeconds) * track.rateHz));
  const amplitude = track.amplitude.subarray(first);
  const deviation = track.deviation.subarray(first);
  const threshold = PRESENT * usualAmplitude(amplitude);
  if (!(threshold > 0)) return null;
  const longestDropout = LONGEST_DROPOUT_SECONDS * track.rateHz;
  const edge = Math.ceil(EDGE_SECONDS * track.rateHz);

  let longest = { start: 0, end: 0 };
  let start = -1;
  let lastPresent = -1;
  const close = () => {
    if (start >= 0 && lastPresent + 1 - start > longest.end - longest.start)
      longest = { start, end: lastPresent + 1 };
    start = -1;
  };
  for (let i = 0; i < amplitude.length; i++) {
    if (amplitude[i] >= threshold) {
      if (start < 0) start = i;
      lastPresent = i;
    } else if (start >= 0 && i - lastPresent > longestDropout) close();
  }
  const newest = start < 0 ? null : { start, end: lastPresent + 1 };
  close();
  const isLongEnough = newest && newest.end - newest.start >= SHORTEST_SECONDS * track.rateHz + 2 * edge;
  const best = fromSeconds !== undefined && isLongEnough ? newest : longest;

  const present: [number, number] = [
    best.start === 0 ? 0 : best.start + edge,
    best.end === amplitude.length ? best.end : best.end - edge,
  ];
  // a live source may be turned at any moment: what it does last is never the part to leave out
  const [from, to] = fromSeconds === undefined ? withoutStartAndStop(deviation, ...present, edge) : present;
  if (to - from < SHORTEST_SECONDS * track.rateHz) return null;
  const kept = inPlace ? deviation.subarray(from, to) : deviation.slice(from, to);
  const loud = inPlace ? amplitude.subarray(from, to) : amplitude.slice(from, to);
  const gone = bridgeGone(kept, loud, threshold, edge >> 2);
  const jumps = bridgeJumps(kept, track.rateHz);
  for (const bridge of jumps) straight(loud, bridge.from, bridge.to);
  return {
    startSeconds: track.startSeconds + (first + from) / track.rateHz,
    rateHz: track.rateHz,
    deviation: kept,
    amplitude: loud,
    bridged: [...gone, ...jumps].sort((a, b) => a.from - b.from),
    unsteadySeconds: (present[1] - present[0] - (to - from)) / track.rateHz,
    dropouts: gone.length,
    jumps: jumps.length,
  };
}

/**
 * Moves both ends inwards past a deck that is still getting up to speed or running down: blocks whose mean is
 * off the median by more than 1 %, or by eight times the usual scatter where that is more.
 */
function withoutStartAndStop(x: Float32Array, from: number, to: number, block: number): [number, number] {
  const blocks = Math.floor((to - from) / block);
  if (blocks < 8) return [from, to];
  const means = Array.from({ length: blocks }, (_, b) => {
    let sum = 0;
    for (let i = from + b * block; i < from + (b + 1) * block; i++) sum += x[i];
    return sum / block;
  });
  const middle = median(means);
  const farthest = Math.max(LARGEST_START_DEVIATION, 8 * median(means.map((m) => Math.abs(m - middle))));
  const off = (m: number) => Math.abs(m - middle) > farthest;
  let first = 0;
  while (first < blocks && off(means[first])) first++;
  let last = blocks - 1;
  while (last > first && off(means[last])) last--;
  const start = first === 0 ? from : Math.min(to, from + (first + RUN_UP_BLOCKS) * block);
  const end = last === blocks - 1 ? to : Math.max(start, from + (last - 1) * block);
  return [start, end];
}

/** The amplitude that the louder half of the track stays above. */
function usualAmplitude(amplitude: Float32Array): number {
  const step = Math.max(1, Math.floor(amplitude.length / 4000));
  const sample = new Float64Array(Math.ceil(amplitude.length / step));
  for (let i = 0; i < sample.length; i++) sample[i] = amplitude[i * step];
  return sample.length === 0 ? 0 : quantileInPlace(sample, 0.75);
}

/** Where the tone was gone: by a drop-out, or because the sound itself was lost, which leaves no amplitude at all. */
function bridgeGone(
  deviation: Float32Array,
  amplitude: Float32Array,
  threshold: number,
  margin: number,
): Bridge[] {
  const bridges: Bridge[] = [];
  for (let i = 0; i < deviation.length; i++) {
    if (amplitude[i] >= threshold) continue;
    let end = i;
    let lost = false;
    for (; end < deviation.length && amplitude[end] < threshold; end++) lost ||= amplitude[end] === 0;
    const from = Math.max(0, i - margin);
    const to = straight(deviation, from, end + margin);
    straight(amplitude, from, end + margin);
    bridges.push({ from, to, lost });
    i = to;
  }
  return bridges;
}

/**
 * A lost piece of sound that leaves no silence behind makes the tone jump: a spike in the deviation as short as the
 * filters allow, many times what the neighbours of a sample differ from it elsewhere.
 */
function bridgeJumps(x: Float32Array, rateHz: number): Bridge[] {
  const reach = Math.max(2, Math.round(JUMP_SECONDS * rateHz));
  if (x.length < 8 * reach) return [];
  const [near, far] = [Math.max(2, Math.round(NARROW_SECONDS * rateHz)), 3 * reach];
  /** The filters make a spike of a jump; a lump of a belt is as high, but wider. */
  const isNarrow = (i: number) => {
    const around = (x[Math.max(0, i - far)] + x[Math.min(x.length - 1, i + far)]) / 2;
    const height = Math.abs(x[i] - around);
    return Math.abs(x[i - near] - around) < height / 2 && Math.abs(x[i + near] - around) < height / 2;
  };
  const aside = (i: number) => {
    const before = x[i] - x[i - reach];
    const after = x[i] - x[i + reach];
    return before * after > 0 ? Math.min(Math.abs(before), Math.abs(after)) : 0;
  };
  const step = Math.max(1, Math.floor(x.length / 2000));
  const sample = new Float64Array(Math.ceil((x.length - 2 * reach) / step));
  for (let i = 0; i < sample.length; i++) sample[i] = aside(reach + i * step);
  const usual = quantileInPlace(sample, 0.9);
  const threshold = Math.max(SMALLEST_JUMP, JUMP_SCATTERS * usual);
  const bridges: Bridge[] = [];
  for (let i = reach; i < x.length - reach; i++) {
    // nearly every value is no farther from what was before it
    const before = x[i] - x[i - reach];
    if (before <= threshold && before >= -threshold) continue;
    if (aside(i) <= threshold || !isNarrow(i)) continue;
    let last = i;
    for (let k = i + 1; k < Math.min(x.length - reach, i + 2 * reach); k++)
      if (aside(k) > threshold) last = k;
    const from = Math.max(0, i - 2 * reach);
    i = straight(x, from, last + 2 * reach);
    bridges.push({ from, to: i, lost: true });
  }
  return bridges;
}

/** Replaces what lies between two places by a straight line; returns the place where it ends. */
function straight(x: Float32Array, from: number, to: number): number {
  const a = Math.max(0, from);
  const b = Math.min(x.length - 1, to);
  for (let k = a + 1; k < b; k++) x[k] = x[a] + ((x[b] - x[a]) * (k - a)) / (b - a);
  return b;
}
