import type { Samples } from "@/core/dsp/signal";
import { HighPeaks } from "./high-peaks";

/** A rhythm in the ticks that a microphone hears. */
export interface TickRhythm {
  rateHz: number;
  /** ± at 95 %. */
  uncertaintyHz: number;
  /** How many ticks of that rhythm were heard. */
  ticks: number;
  /** Of all the ticks so many belong to it. */
  share: number;
}

export interface TickFinding {
  rhythm: TickRhythm | null;
  /** Everything that ticked. */
  heard: number;
  seconds: number;
}

const KNOCKS = {
  aboveHz: 1500,
  sections: 2,
  frameSeconds: 0.002,
  usualFrames: 1000,
  lookEveryFrames: 25,
  leastFrames: 250,
} as const;
/** So far back ticks count: a slow reel needs a minute. */
const KEPT_SECONDS = 60;
const MOST_TICKS = 800;
const STANDS_OUT = 4;
/** What follows within so long is the same tick, ringing. */
const SAME_SECONDS = 0.035;
/** The rates of what turns in a deck, ticks a second. */
const [SLOWEST_HZ, FASTEST_HZ] = [0.25, 14];
/** Rates are tried so closely that over the whole time a tick moves by less than that share of a turn. */
const DRIFT_SHARE = 0.08;
/** The ticks of a rhythm lie this close together, as the length of their mean vector. */
const LEAST_TOGETHER = 0.75;
/** Ticks at random lie together by chance: so many times as much is asked for. */
const ABOVE_CHANCE = 1.25;
/** A rhythm is as good at a half and a third of its period: the longest that is nearly as good is taken. */
const NEARLY = 0.93;
/** A tick belongs to a rhythm that it is out of step with by less. */
const IN_STEP_TURNS = 0.12;
const FEWEST_TICKS = 8;
/** A rhythm of which most ticks are missing is none. */
const LEAST_PRESENT = 0.6;

/**
 * Finds the rhythm of a tick in what a microphone at the mechanism hears: moments that stand out above 1.5 kHz, and the
 * rate at which their directions on a circle agree best (the mean vector of circular statistics; Rayleigh's test bounds
 * what chance gives). Push blocks of one channel, full scale = ±1.
 */
export class TickFinder {
  private readonly peaks: HighPeaks;
  private frames = 0;
  private ticks: number[] = [];

  constructor(sampleRateHz: number) {
    this.peaks = new HighPeaks(sampleRateHz, KNOCKS, (peak, usual) => this.take(peak, usual));
  }

  push(x: Samples): void {
    this.peaks.push(x);
  }

  private get seconds(): number {
    return this.frames * KNOCKS.frameSeconds;
  }

  private take(peak: number, usual: number | null): void {
    this.frames++;
    if (usual !== null && peak > STANDS_OUT * usual) {
      const last = this.ticks.at(-1) ?? -Infinity;
      if (this.seconds - last > SAME_SECONDS) this.ticks.push(this.seconds);
    }
    if (this.frames % KNOCKS.lookEveryFrames === 0)
      this.ticks = this.ticks.filter((at) => at > this.seconds - KEPT_SECONDS).slice(-MOST_TICKS);
  }

  get result(): TickFinding {
    const { ticks, seconds } = this;
    return { rhythm: rhythmOf(ticks), heard: ticks.length, seconds: Math.min(seconds, KEPT_SECONDS) };
  }
}

/** The rhythm of ticks at these times, seconds; null where chance would do as well. */
export function rhythmOf(ticks: readonly number[]): TickRhythm | null {
  if (ticks.length < FEWEST_TICKS) return null;
  const span = ticks[ticks.length - 1] - ticks[0];
  const step = DRIFT_SHARE / span;
  // at least three turns have to have been heard
  const slowest = Math.max(SLOWEST_HZ, 3 / span);
  const tried: Array<{ rateHz: number; together: number }> = [];
  for (let rateHz = slowest; rateHz <= FASTEST_HZ; rateHz += step)
    tried.push({ rateHz, together: together(ticks, rateHz) });
  const best = Math.max(...tried.map((one) => one.together));
  const chance = Math.sqrt(Math.log(tried.length) / ticks.length);
  if (best < Math.max(LEAST_TOGETHER, Math.min(0.97, ABOVE_CHANCE * chance))) return null;
  const first = tried.findIndex((one) => one.together > NEARLY * best);
  const peak = tried.slice(first, first + 4).toSorted((a, b) => b.together - a.together)[0];
  return refined(ticks, peak.rateHz);
}

/** Length of the mean of the ticks' directions, when one turn of the circle is one period. */
function together(ticks: readonly number[], rateHz: number): number {
  let [re, im] = [0, 0];
  for (const at of ticks) {
    const angle = 2 * Math.PI * rateHz * at;
    re += Math.cos(angle);
    im += Math.sin(angle);
  }
  return Math.hypot(re, im) / ticks.length;
}

/** The straight line through the times of the ticks that are in step, by their number. */
function refined(ticks: readonly number[], roughHz: number): TickRhythm | null {
  let rateHz = roughHz;
  let inStep: Array<{ turn: number; at: number }> = [];
  let spread = 0;
  for (let round = 0; round < 3; round++) {
    let [re, im] = [0, 0];
    for (const at of ticks) {
      re += Math.cos(2 * Math.PI * rateHz * at);
      im += Math.sin(2 * Math.PI * rateHz * at);
    }
    const phase = Math.atan2(im, re) / (2 * Math.PI);
    inStep = ticks.flatMap((at) => {
      const turns = rateHz * at - phase;
      const turn = Math.round(turns);
      return Math.abs(turns - turn) < IN_STEP_TURNS ? [{ turn, at }] : [];
    });
    if (inStep.length < FEWEST_TICKS) return null;
    const meanTurn = inStep.reduce((sum, { turn }) => sum + turn, 0) / inStep.length;
    const meanAt = inStep.reduce((sum, { at }) => sum + at, 0) / inStep.length;
    const [across, along] = inStep.reduce(
      ([a, b], { turn, at }) => [a + (turn - meanTurn) * (at - meanAt), b + (turn - meanTurn) ** 2],
      [0, 0],
    );
    const period = across / along;
    const residual = inStep.reduce(
      (sum, { turn, at }) => sum + (at - meanAt - period * (turn - meanTurn)) ** 2,
      0,
    );
    spread = Math.sqrt(residual / Math.max(1, inStep.length - 2) / along) / period;
    rateHz = 1 / period;
  }
  const turns = 1 + inStep[inStep.length - 1].turn - inStep[0].turn;
  const present = new Set(inStep.map(({ turn }) => turn)).size;
  if (present < LEAST_PRESENT * turns) return null;
  return {
    rateHz,
    uncertaintyHz: rateHz * Math.max(2 * spread, 0.0005),
    ticks: inStep.length,
    share: inStep.length / ticks.length,
  };
}
