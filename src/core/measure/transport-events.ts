import { median } from "@/core/dsp/quantile";
/** Something that happened to the tape's speed at a moment. */
export interface TransportEvent {
  kind: "slip" | "surge" | "tick" | "stall";
  atSeconds: number;
  seconds: number;
  /** Farthest deviation from the usual speed, percent; a stall has none. */
  percent: number | null;
}

/** Speed at steps of 10 ms: quick enough for a tick, slow enough that scrape does not count. */
const STEP_SECONDS = 0.01;
const SCATTERS = 7;
const SMALLEST_PERCENT = 0.5;
const LONGEST_TICK_SECONDS = 0.05;
const STALL_SECONDS = 0.15;
const MOST_A_MINUTE = 20;
const STANDS_OUT = 1.5;
/** Events closer than this are one. */
const JOIN_SECONDS = 0.1;

/**
 * Finds slips (speed falls for a moment), surges (it rises), ticks (a short spike) and stalls (the tone is gone) in a
 * stretch of deviation. What counts is measured against the usual scatter, so that steady flutter is no event.
 * @param deviation as a fraction, NaN where there was no tone
 */
export function transportEvents(
  deviation: ArrayLike<number>,
  rateHz: number,
  startSeconds = 0,
): TransportEvent[] {
  const perStep = Math.max(1, Math.round(STEP_SECONDS * rateHz));
  const steps = Math.floor(deviation.length / perStep);
  const means = new Float64Array(steps);
  // of an hour there are so many that a list of them would fill the heap
  const room = new Float64Array(steps);
  let count = 0;
  for (let s = 0; s < steps; s++) {
    let sum = 0;
    for (let i = s * perStep; i < (s + 1) * perStep; i++) sum += deviation[i];
    means[s] = 100 * (sum / perStep);
    if (!Number.isNaN(means[s])) room[count++] = means[s];
  }
  const known = room.subarray(0, count);
  if (count < 20) return [];
  const usual = median(known);
  const away = median(known.map((m) => Math.abs(m - usual)));
  const threshold = Math.max(SMALLEST_PERCENT, SCATTERS * 1.48 * away);
  const stepSeconds = perStep / rateHz;
  const minutes = (steps * stepSeconds) / 60;
  const found = eventsAbove(means, usual, threshold, stepSeconds, startSeconds);
  if (found.length <= MOST_A_MINUTE * Math.max(0.5, minutes)) return found;
  // what comes so often is the machine's flutter: only what stands out from that is an event
  const raised = STANDS_OUT * median(found.map(({ percent }) => Math.abs(percent ?? 0)));
  return eventsAbove(means, usual, Math.max(threshold, raised), stepSeconds, startSeconds);
}

function eventsAbove(
  means: Float64Array,
  usual: number,
  threshold: number,
  stepSeconds: number,
  startSeconds: number,
): TransportEvent[] {
  const steps = means.length;
  const join = Math.round(JOIN_SECONDS / stepSeconds);

  const events: TransportEvent[] = [];
  const outside = (s: number) => Number.isNaN(means[s]) || Math.abs(means[s] - usual) > threshold;
  for (let s = 0; s < steps; s++) {
    if (!outside(s)) continue;
    let last = s;
    for (let k = s + 1; k < steps && k <= last + join; k++) if (outside(k)) last = k;
    let extreme = 0;
    let missing = 0;
    for (let k = s; k <= last; k++) {
      if (Number.isNaN(means[k])) missing++;
      else if (Math.abs(means[k] - usual) > Math.abs(extreme)) extreme = means[k] - usual;
    }
    const seconds = (last - s + 1) * stepSeconds;
    const at = startSeconds + s * stepSeconds;
    if (missing * stepSeconds >= STALL_SECONDS)
      events.push({ kind: "stall", atSeconds: at, seconds, percent: null });
    else if (extreme !== 0)
      events.push({
        kind: seconds <= LONGEST_TICK_SECONDS ? "tick" : extreme < 0 ? "slip" : "surge",
        atSeconds: at,
        seconds,
        percent: extreme,
      });
    s = last;
  }
  return events;
}
