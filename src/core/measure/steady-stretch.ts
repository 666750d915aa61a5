import type { DeviationTrack } from "./deviation-track";

/** Below this fraction of its usual amplitude the tone counts as gone. */
const PRESENT = 0.25;
/** Shorter losses are drop-outs inside one stretch, longer ones end it. */
const LONGEST_DROPOUT_SECONDS = 0.1;
/** Kept clear of every edge, where the filters see half tone, half silence. */
const EDGE_SECONDS = 0.06;

export interface SteadyStretch {
  startSeconds: number;
  rateHz: number;
  /** Deviation from nominal as a fraction, drop-outs bridged by straight lines. */
  deviation: Float64Array;
  dropouts: number;
}

/**
 * The longest stretch of a track, between `fromSeconds` and its end, in which the tone is there.
 * Returns null where there is none of at least `shortestSeconds`.
 */
export function longestSteadyStretch(
  track: DeviationTrack,
  fromSeconds = -Infinity,
  shortestSeconds = 0.25,
): SteadyStretch | null {
  const first = Math.max(0, Math.ceil((fromSeconds - track.startSeconds) * track.rateHz));
  const amplitude = track.amplitude.subarray(first);
  const deviation = track.deviation.subarray(first);
  const threshold = PRESENT * usualAmplitude(amplitude);
  if (!(threshold > 0)) return null;
  const longestDropout = LONGEST_DROPOUT_SECONDS * track.rateHz;
  const edge = Math.ceil(EDGE_SECONDS * track.rateHz);

  let best = { start: 0, end: 0 };
  let start = -1;
  let lastPresent = -1;
  const close = () => {
    if (start >= 0 && lastPresent + 1 - start > best.end - best.start) best = { start, end: lastPresent + 1 };
    start = -1;
  };
  for (let i = 0; i < amplitude.length; i++) {
    if (amplitude[i] >= threshold) {
      if (start < 0) start = i;
      lastPresent = i;
    } else if (start >= 0 && i - lastPresent > longestDropout) close();
  }
  close();

  const from = best.start === 0 ? 0 : best.start + edge;
  const to = best.end === amplitude.length ? best.end : best.end - edge;
  if (to - from < shortestSeconds * track.rateHz) return null;
  const kept = Float64Array.from(deviation.subarray(from, to));
  return {
    startSeconds: track.startSeconds + (first + from) / track.rateHz,
    rateHz: track.rateHz,
    deviation: kept,
    dropouts: bridge(kept, amplitude.subarray(from, to), threshold, edge >> 2),
  };
}

/** The amplitude that the louder half of the track stays above. */
function usualAmplitude(amplitude: Float32Array): number {
  const step = Math.max(1, Math.floor(amplitude.length / 4000));
  const sample = [];
  for (let i = 0; i < amplitude.length; i += step) sample.push(amplitude[i]);
  sample.sort((a, b) => a - b);
  return sample[Math.floor(0.75 * sample.length)] ?? 0;
}

function bridge(deviation: Float64Array, amplitude: Float32Array, threshold: number, margin: number): number {
  let count = 0;
  for (let i = 0; i < deviation.length; i++) {
    if (amplitude[i] >= threshold) continue;
    let end = i;
    while (end < deviation.length && amplitude[end] < threshold) end++;
    const a = Math.max(0, i - margin);
    const b = Math.min(deviation.length - 1, end + margin);
    for (let k = a + 1; k < b; k++)
      deviation[k] = deviation[a] + ((deviation[b] - deviation[a]) * (k - a)) / (b - a);
    count++;
    i = b;
  }
  return count;
}
