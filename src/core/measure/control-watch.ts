import { amplitudeDb } from "@/core/dsp/decibels";
import { median } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";
import { HighPeaks } from "./high-peaks";

/** What one channel did while a control was worked. */
export interface WorkedChannel {
  /** Clicks and scratches that stand out of what the tone leaves at high frequencies. */
  crackles: number;
  /** Moments in which the tone was gone or much weaker, too short for a hand. */
  dropOuts: number;
  levelDbfs: number;
}

/** A control that is worked while a tone plays, so far. */
export interface ControlTest {
  /** Of tone, in which it could be listened to. */
  seconds: number;
  channels: WorkedChannel[];
  /** Left less right re the start, dB: how far it went either way; null for one channel. */
  balance: { fromDb: number; toDb: number } | null;
}

/** A crackle stands so much above what is usual, and above any hiss that matters. */
const STANDS_OUT = 5;
const FAINTEST = 1e-4;
/** What follows within so long is the same one. */
const SAME_FRAMES = 15;
/** Frames of a millisecond; the tone and its first harmonics lie below. */
const BURSTS = {
  aboveHz: 5000,
  sections: 3,
  frameSeconds: 0.001,
  usualFrames: 600,
  lookEveryFrames: SAME_FRAMES,
  leastFrames: 200,
} as const;
/** The level of the tone, a frame each: three periods of a low one. */
const LEVEL_FRAME_SECONDS = 0.01;
const AROUND_LEVEL_FRAMES = 25;
const DROP_DB = 3;
const LONGEST_DROP_FRAMES = 30;
const NO_TONE_DBFS = -60;
/** Balance is held against what it was in the first of these. */
const START_FRAMES = 60;
const BALANCE_FRAMES = 15;

/**
 * Counts crackles and drop-outs and follows the balance while a control or a switch is worked and a tone below 1.6 kHz
 * plays. Push blocks of one array a channel, full scale = ±1.
 */
export class ControlWatch {
  private readonly channels: Array<{ crackles: CrackleCounter; level: LevelTrack }>;

  constructor(sampleRateHz: number, channelCount: number) {
    this.channels = Array.from({ length: Math.min(2, channelCount) }, () => ({
      crackles: new CrackleCounter(sampleRateHz),
      level: new LevelTrack(sampleRateHz),
    }));
  }

  push(block: readonly Samples[]): void {
    this.channels.forEach(({ crackles, level }, c) => {
      level.push(block[c]);
      crackles.push(block[c]);
    });
  }

  get result(): ControlTest {
    const levels = this.channels.map(({ level }) => level);
    return {
      seconds: Math.min(...levels.map(({ toneSeconds }) => toneSeconds)),
      channels: this.channels.map(({ crackles, level }) => ({
        crackles: crackles.count,
        dropOuts: level.dropOuts(),
        levelDbfs: level.latestDbfs,
      })),
      balance: balanceOf(levels),
    };
  }
}

/** Bursts at high frequencies, one channel. */
class CrackleCounter {
  count = 0;
  private sinceCrackle = Infinity;
  private readonly peaks: HighPeaks;

  constructor(sampleRateHz: number) {
    this.peaks = new HighPeaks(sampleRateHz, BURSTS, (peak, usual) => this.take(peak, usual));
  }

  push(x: Samples): void {
    this.peaks.push(x);
  }

  private take(peak: number, usual: number | null): void {
    this.sinceCrackle++;
    if (usual === null || peak <= STANDS_OUT * usual || peak <= FAINTEST) return;
    if (this.sinceCrackle > SAME_FRAMES) this.count++;
    this.sinceCrackle = 0;
  }
}

/** Level of the tone over time, one channel. */
class LevelTrack {
  readonly levelsDb: number[] = [];
  private readonly frame: number;
  private filled = 0;
  private sum = 0;
  private looked = AROUND_LEVEL_FRAMES;
  private down = 0;
  private drops = 0;

  constructor(sampleRateHz: number) {
    this.frame = Math.round(LEVEL_FRAME_SECONDS * sampleRateHz);
  }

  push(x: Samples): void {
    for (let i = 0; i < x.length; i++) {
      this.sum += x[i] * x[i];
      if (++this.filled < this.frame) continue;
      this.levelsDb.push(amplitudeDb(Math.sqrt(this.sum / this.frame)));
      [this.filled, this.sum] = [0, 0];
    }
  }

  get toneSeconds(): number {
    return LEVEL_FRAME_SECONDS * this.levelsDb.filter((db) => db > NO_TONE_DBFS).length;
  }

  get latestDbfs(): number {
    return this.levelsDb.length === 0 ? -Infinity : median(this.levelsDb.slice(-BALANCE_FRAMES));
  }

  /** What lies below its surroundings for less time than a hand takes; looked for in what came since the last time. */
  dropOuts(): number {
    const { levelsDb } = this;
    for (; this.looked < levelsDb.length - AROUND_LEVEL_FRAMES; this.looked++) {
      const i = this.looked;
      const around = median([
        ...levelsDb.slice(i - AROUND_LEVEL_FRAMES, i - 2),
        ...levelsDb.slice(i + 3, i + AROUND_LEVEL_FRAMES),
      ]);
      if (around > NO_TONE_DBFS && levelsDb[i] < around - DROP_DB) this.down++;
      else {
        if (this.down > 0 && this.down < LONGEST_DROP_FRAMES) this.drops++;
        this.down = 0;
      }
    }
    return this.drops;
  }
}

/** How far left less right went from where it began, while both had a tone. */
function balanceOf(levels: LevelTrack[]): ControlTest["balance"] {
  const [left, right] = levels;
  if (!right || left.levelsDb.length < START_FRAMES) return null;
  const differences: number[] = [];
  for (
    let i = 0;
    i + BALANCE_FRAMES <= Math.min(left.levelsDb.length, right.levelsDb.length);
    i += BALANCE_FRAMES
  ) {
    const [l, r] = [left, right].map(({ levelsDb }) => median(levelsDb.slice(i, i + BALANCE_FRAMES)));
    if (l > NO_TONE_DBFS && r > NO_TONE_DBFS) differences.push(l - r);
  }
  if (differences.length === 0) return null;
  const start = median(differences.slice(0, START_FRAMES / BALANCE_FRAMES));
  return { fromDb: Math.min(...differences) - start, toDb: Math.max(...differences) - start };
}
