import { amplitudeDb } from "@/core/dsp/decibels";
import { HighPass } from "@/core/dsp/filter-section";
import { median } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";

/** How long a mechanism was heard to run. */
export interface WindHeard {
  state: "waits for quiet" | "ready" | "runs" | "stopped";
  /** Since it began, or from its beginning to its end; null before. */
  seconds: number | null;
  /** ± of that at its two ends together; null while it has not ended. */
  uncertaintySeconds: number | null;
  /** Why that time may be another one than the mechanism's; null for no reason to doubt it. */
  doubt: string | null;
}

const FRAME_SECONDS = 0.05;
/** Mains hum and handling lie below. */
const [ABOVE_HZ, SECTIONS] = [400, 2] as const;
/** It has to be quiet for so long first, and as quiet as this from frame to frame, dB. */
const [QUIET_FRAMES, QUIET_WITHIN_DB] = [30, 9] as const;
/** What runs is louder by so much; it has ended where it is not even half of that above the quiet. */
const [RUNS_DB, ENDED_SHARE] = [8, 0.5] as const;
/** So many frames decide that it began, or ended: a knock or a word is shorter, and a mechanism starts no later. */
const SURE_FRAMES = 20;
const SURE_SHARE = 0.85;
/** Louder than it usually runs by so much is something else; for so long in all it is doubted. */
const [OTHER_DB, OTHER_FRAMES] = [10, 16] as const;
/** Quieter in between, for so long in all: it may have stopped and gone on. */
const PAUSE_FRAMES = 10;
const LONGEST_SECONDS = 1800;
const USUAL_FRAMES = 400;
const EDGE_SECONDS = 0.15;

/**
 * Times by ear how long a mechanism runs: it is quiet, then it is louder for as long as it winds, then quiet again. Push
 * blocks of one channel, a microphone at the machine, full scale = ±1.
 */
export class WindWatch {
  private readonly highPass: HighPass;
  private readonly frame: number;
  private filled = 0;
  private power = 0;
  /** Level of each frame, dBFS; until it is ready the last ones only. */
  private levels: number[] = [];
  /** The level that it is quiet at; null until it was quiet. */
  private quietDb: number | null = null;
  private beganAt: number | null = null;
  private endedAt: number | null = null;

  constructor(sampleRateHz: number) {
    this.highPass = new HighPass(ABOVE_HZ, SECTIONS, sampleRateHz);
    this.frame = Math.round(FRAME_SECONDS * sampleRateHz);
  }

  push(x: Samples): void {
    const high = this.highPass.push(x);
    for (let i = 0; i < high.length; i++) {
      this.power += high[i] * high[i];
      if (++this.filled < this.frame) continue;
      this.take(amplitudeDb(Math.sqrt(this.power / this.frame)));
      [this.filled, this.power] = [0, 0];
    }
  }

  private take(levelDb: number): void {
    if (this.endedAt !== null || this.levels.length * FRAME_SECONDS > LONGEST_SECONDS) return;
    const { levels } = this;
    levels.push(levelDb);
    if (this.quietDb === null) {
      if (levels.length > QUIET_FRAMES) levels.shift();
      if (levels.length < QUIET_FRAMES || Math.max(...levels) - Math.min(...levels) > QUIET_WITHIN_DB) return;
      this.quietDb = median(levels);
      return;
    }
    const from = levels.length - SURE_FRAMES;
    if (this.beganAt === null) {
      const runs = this.quietDb + RUNS_DB;
      if (isMostly(levels.slice(from), (level) => level > runs) && levels[from] > runs) this.beganAt = from;
      // what was long ago is not wanted while nothing has begun
      else if (levels.length > 2 * QUIET_FRAMES) levels.shift();
      return;
    }
    if (from <= this.beganAt) return;
    const ended = this.quietDb + ENDED_SHARE * (this.usualDb() - this.quietDb);
    if (isMostly(levels.slice(from), (level) => level < ended) && levels[from] < ended) this.endedAt = from;
  }

  /** How loud it ran until what decides whether it has ended. */
  private usualDb(): number {
    const end = Math.max(this.beganAt! + SURE_FRAMES, this.levels.length - SURE_FRAMES);
    return median(this.levels.slice(Math.max(this.beganAt!, end - USUAL_FRAMES), end));
  }

  get result(): WindHeard {
    const { quietDb, beganAt, endedAt, levels } = this;
    const nothing = { seconds: null, uncertaintySeconds: null, doubt: null };
    if (quietDb === null) return { state: "waits for quiet", ...nothing };
    if (beganAt === null) return { state: "ready", ...nothing };
    const seconds = FRAME_SECONDS * ((endedAt ?? levels.length) - beganAt);
    if (endedAt === null) return { state: "runs", ...nothing, seconds };
    return {
      state: "stopped",
      seconds,
      uncertaintySeconds: 2 * EDGE_SECONDS,
      doubt: doubtOf(levels.slice(beganAt, endedAt), quietDb),
    };
  }
}

const isMostly = (levels: number[], is: (level: number) => boolean): boolean =>
  levels.filter(is).length >= SURE_SHARE * levels.length;

/** @param levels of what ran, dBFS by frame */
function doubtOf(levels: number[], quietDb: number): string | null {
  const usual = median(levels);
  const other = levels.filter((level) => level > usual + OTHER_DB).length;
  const paused = levels.filter((level) => level < quietDb + ENDED_SHARE * (usual - quietDb)).length;
  if (paused >= PAUSE_FRAMES)
    return "It went quiet in between: it may have stopped and gone on, or something else was heard.";
  if (other >= OTHER_FRAMES) return "Something louder was heard meanwhile: the end may be of that.";
  return null;
}
