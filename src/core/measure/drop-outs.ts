import { quantileInPlace } from "@/core/dsp/quantile";
import { FirDecimator } from "@/core/dsp/fir-decimator";
import { kaiserLowpass } from "@/core/dsp/kaiser-lowpass";
import type { Samples } from "@/core/dsp/signal";

/** A moment in which a tone was weaker. */
export interface DropOut {
  atSeconds: number;
  /** From where it is half as deep, in decibels, as at its bottom to where it is that again. */
  seconds: number;
  depthDb: number;
}

/** What is let through around the tone, shares of its frequency: 5 ms keep their depth, hum and harmonics stay out. */
const PASS = 0.05;
const STOP = 0.62;
const ATTENUATION_DB = 60;
const ENVELOPE_RATE_HZ = 6000;

/** What is as deep is heard as one. */
export const USUAL_DEPTH_DB = 6;

/** In a lower tone a short drop-out has no room; in a shorter one there is no rate a minute to tell. */
const LOWEST_COUNTED_HZ = 900;
const SHORTEST_COUNTED_SECONDS = 10;

/** The level is held against its median over so long. */
const AROUND_SECONDS = 1;
const MEDIAN_EVERY_SECONDS = 0.1;
/** What lasts longer is no drop-out: the tone has ended, or its level was changed. */
const LONGEST_SECONDS = 0.4;
const SHORTEST_SECONDS = 0.002;
/** The bottom is a mean over this share of its length, so that hiss does not deepen it. */
const BOTTOM_SHARE = 0.2;
const LEAST_BOTTOM_SECONDS = 0.0006;
const MOST_BOTTOM_SECONDS = 0.01;
/** What is so weak all around is no tone. */
const GONE_DBFS = -70;
/** Looked through at a time, with so much of what comes before and after. */
const PIECE_SECONDS = 30;
const CONTEXT_SECONDS = 1.5;
const PIECE_AND_AROUND_SECONDS = PIECE_SECONDS + 2 * CONTEXT_SECONDS;
/** A block more than that has room. */
const ROOM_SECONDS = PIECE_AND_AROUND_SECONDS + 1;

/** Whether the drop-outs of a tone of a tape are counted, as it is heard: one rule for a recording and for a tape's passport. */
export const countsDropOuts = (hz: number, sampleRateHz: number, seconds: number): boolean =>
  hz >= LOWEST_COUNTED_HZ && isFollowed(hz, sampleRateHz) && seconds >= SHORTEST_COUNTED_SECONDS;

const isFollowed = (hz: number, sampleRateHz: number): boolean =>
  hz > 0 && hz * (1 + STOP) < 0.5 * sampleRateHz;

/**
 * Finds the drop-outs of a steady tone in one channel: moments in which its envelope lies at least `depthDb` below what
 * it is around. Push blocks of any length; ask once, at the end.
 */
export class DropOutMeter {
  private readonly filter: FirDecimator;
  private readonly rateHz: number;
  /** The envelope that is held, at the beginning of its room. */
  private room: Float64Array;
  private filled = 0;
  /** Time of the first that is held. */
  private heldFrom: number;
  private lookedTo = 0;
  private events: DropOut[] = [];
  private toneSeconds = 0;

  /** @param hz of the tone, within some percent. @throws RangeError for one that the sample rate does not hold */
  constructor(
    sampleRateHz: number,
    hz: number,
    private readonly depthDb: number,
  ) {
    if (!isFollowed(hz, sampleRateHz))
      throw new RangeError(`a tone of ${hz} Hz cannot be followed at ${sampleRateHz} samples a second`);
    const factor = Math.max(1, Math.floor(sampleRateHz / Math.max(ENVELOPE_RATE_HZ, 2 * hz)));
    this.rateHz = sampleRateHz / factor;
    this.filter = new FirDecimator(
      kaiserLowpass(sampleRateHz, PASS * hz, STOP * hz, ATTENUATION_DB),
      factor,
      (2 * Math.PI * hz) / sampleRateHz,
    );
    this.heldFrom = this.filter.delaySamples / sampleRateHz;
    this.room = new Float64Array(Math.ceil(ROOM_SECONDS * this.rateHz));
  }

  push(block: Samples): void {
    const { re, im } = this.filter.push(block);
    if (this.filled + re.length > this.room.length) {
      const before = this.room.subarray(0, this.filled);
      this.room = new Float64Array(this.filled + re.length);
      this.room.set(before);
    }
    for (let i = 0; i < re.length; i++)
      this.room[this.filled + i] = 2 * Math.sqrt(re[i] * re[i] + im[i] * im[i]);
    this.filled += re.length;
    if (this.filled > PIECE_AND_AROUND_SECONDS * this.rateHz) this.look(CONTEXT_SECONDS);
  }

  /** Everything that was found, and how long the tone was heard. */
  result(): { events: DropOut[]; seconds: number } {
    this.look(0);
    return { events: this.events, seconds: this.toneSeconds };
  }

  /** @param leave so many seconds at the end for the next look, which knows what follows them */
  private look(leave: number): void {
    const { rateHz, heldFrom } = this;
    const held = this.room.subarray(0, this.filled);
    const until = heldFrom + held.length / rateHz - leave;
    const found = dropOutsIn(held, rateHz, this.depthDb);
    for (const event of found.events) {
      const atSeconds = heldFrom + event.atSeconds;
      if (atSeconds >= this.lookedTo && atSeconds < until) this.events.push({ ...event, atSeconds });
    }
    const from = Math.max(0, Math.round((this.lookedTo - heldFrom) * rateHz));
    const to = Math.min(held.length, Math.round((until - heldFrom) * rateHz));
    this.toneSeconds += found.plays.subarray(from, to).reduce((sum, one) => sum + one, 0) / rateHz;
    this.lookedTo = until;
    const drop = Math.max(0, to - Math.round(CONTEXT_SECONDS * rateHz));
    held.copyWithin(0, drop);
    this.filled -= drop;
    this.heldFrom = heldFrom + drop / rateHz;
  }
}

function dropOutsIn(envelope: Float64Array, rateHz: number, depthDb: number) {
  const events: DropOut[] = [];
  const plays = new Uint8Array(envelope.length);
  if (envelope.length < AROUND_SECONDS * rateHz) return { events, plays };
  const usual = usualLevels(envelope, rateHz);
  const gone = 10 ** (GONE_DBFS / 20);
  const threshold = 10 ** (-depthDb / 20);
  const edge = 10 ** (-depthDb / 40);
  for (let i = 0; i < envelope.length; i++) {
    const level = usual(i);
    if (level < gone) continue;
    plays[i] = 1;
    if (envelope[i] >= threshold * level) continue;
    let [from, to] = [i, i];
    while (from > 0 && envelope[from - 1] < edge * level) from--;
    while (to < envelope.length - 1 && envelope[to + 1] < edge * level) to++;
    plays.fill(1, i, to + 1);
    const seconds = (to - from + 1) / rateHz;
    const whole = from > 0 && to < envelope.length - 1;
    if (whole && seconds >= SHORTEST_SECONDS && seconds <= LONGEST_SECONDS) {
      const depth = -20 * Math.log10(bottomOf(envelope.subarray(from, to + 1), rateHz) / level);
      const { begin, end } = widthAt(envelope, from, to, level * 10 ** (-depth / 40));
      if (depth >= depthDb)
        events.push({ atSeconds: begin / rateHz, seconds: (end - begin) / rateHz, depthDb: depth });
    }
    i = to;
  }
  return { events, plays };
}

/** The median of what is around each place. */
function usualLevels(envelope: Float64Array, rateHz: number): (i: number) => number {
  const half = Math.round((AROUND_SECONDS * rateHz) / 2);
  const every = Math.round(MEDIAN_EVERY_SECONDS * rateHz);
  const values: number[] = [];
  const around = new Float64Array(Math.min(2 * half, envelope.length));
  for (let at = 0; at < envelope.length; at += every) {
    const from = Math.max(0, Math.min(envelope.length - around.length, at - half));
    around.set(envelope.subarray(from, from + around.length));
    values.push(quantileInPlace(around, 0.5));
  }
  return (i) => values[Math.min(values.length - 1, Math.round(i / every))];
}

/** The lowest mean over a share of the length. */
function bottomOf(part: Float64Array, rateHz: number): number {
  const wanted = Math.max(LEAST_BOTTOM_SECONDS * rateHz, BOTTOM_SHARE * part.length);
  const span = Math.max(1, Math.min(part.length, Math.round(Math.min(wanted, MOST_BOTTOM_SECONDS * rateHz))));
  let sum = 0;
  let lowest = Infinity;
  for (let i = 0; i < part.length; i++) {
    sum += part[i];
    if (i >= span) sum -= part[i - span];
    if (i >= span - 1) lowest = Math.min(lowest, sum / span);
  }
  return lowest;
}

/** Where the envelope falls through a level and rises through it again, within what was found. */
function widthAt(envelope: Float64Array, from: number, to: number, level: number) {
  let [begin, end] = [from, to];
  while (begin < to && envelope[begin] > level) begin++;
  while (end > from && envelope[end] > level) end--;
  return { begin, end: end + 1 };
}

/** How many drop-outs of one channel are in the other at the same time. */
export const together = (one: readonly DropOut[], other: readonly DropOut[]): number =>
  one.filter((a) =>
    other.some(
      (b) =>
        a.atSeconds < b.atSeconds + b.seconds + SAME_SECONDS &&
        b.atSeconds < a.atSeconds + a.seconds + SAME_SECONDS,
    ),
  ).length;
const SAME_SECONDS = 0.004;
