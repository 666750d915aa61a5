import { louder } from "@/core/measure/louder";
import { TonePairMeter, type TonePair } from "@/core/measure/tone-pair";
import { toneWander } from "@/core/measure/tone-wander";

/** Where what is heard comes from. */
export type HearsNow = "source" | "tape" | "unclear";

/** Tones that are followed into a recorder and back: whichever one plays, or these, sounding together. */
export type Followed = "any tone" | readonly number[];

/** Tones as they stood for a while. */
export interface StoodAt {
  /** Of each tone, of each channel. */
  levelsDbfs: number[][];
  /** ± at 95 % of each, dB. */
  uncertaintyDb: number;
  atSeconds: number;
}

/** What went into a recorder and what came back. */
export interface SourceAndTape {
  /** Null while none plays. */
  hears: HearsNow | null;
  /** It was said by hand, not found out. */
  byHand: boolean;
  /** Of the tones; empty before any was heard. */
  frequenciesHz: readonly number[];
  /** What went in; null before it was heard, and when it can be that no longer. */
  source: StoodAt | null;
  /** What came back, as it stands; null before it was heard. */
  tape: (StoodAt & { settled: boolean }) | null;
  /** How what came back stood before it moved, since the last turn that was told; null when it has not moved. */
  before: StoodAt | null;
}

/** The wandering of a tone below which it is locked to a clock, and above which it has been on tape, percent. */
const LOCKED_PERCENT = 0.002;
const TAPED_PERCENT = 0.004;
/** So much of the recent sound is judged at a time. */
const WINDOW_SECONDS = 2;
/** A level that holds still firms up over so many windows. */
const MOST_WINDOWS = 4;
/** It holds still while it stays so near to what it was. */
const STILL_DB = 0.1;
/** So often in a row it has to be the same before it counts: a switch that is worked is heard half and half. */
const IN_A_ROW = 2;
/** A switch that was worked since then shows in the end of a window. */
const LATEST_SECONDS = 0.7;
const SAME_TONE = 0.02;
/** A level that moved by more was turned. */
const MOVED_DB = 0.2;
/** Within a window a level that moves by more does not stand. */
const STEADY_DB = 0.25;
const LEAST_UNCERTAINTY_DB = 0.03;
/** What went in is believed for so long; somebody may have touched the generator since. */
const BELIEVED_SECONDS = 900;
const PIECES = 4;
const LATEST_FRAMES = 5;
/** What moves less than a turn in so long is the machine's own wander. */
const WANDERS_SECONDS = 20;
/** Tones that sound together hold at least this share of the power, and are no farther apart than this. */
const MOSTLY = 0.5;
const APART_DB = 25;

/**
 * Compares what goes into a recorder with what comes off its tape, from the one signal that its monitor gives: whether
 * that is the source or the tape is told by how the tone wavers. The source's levels are remembered, and everything that
 * comes off tape is read as a difference to them.
 */
export class SourceAndTapeFollower {
  private state: SourceAndTape = NOTHING;
  private row: { hears: HearsNow; times: number } = { hears: "unclear", times: 0 };
  private said: "source" | "tape" | null = null;
  private since = 0;
  /** How what comes back stood first since the last turn that was told. */
  private stood: StoodAt | null = null;
  /** The windows in which the same thing has been heard at the same level. */
  private held: { hears: HearsNow; windows: StoodAt[] } | null = null;

  constructor(private readonly sampleRateHz: number) {}

  /** By hand: from now on it is that, until something else is said or null gives it back to Unzel. */
  say(hears: "source" | "tape" | null): void {
    this.said = hears;
    this.row = { hears: "unclear", times: 0 };
  }

  /** Something of the recorder was turned: what came back before is of another setting; what went in is not. */
  mark(seconds: number): void {
    this.since = seconds;
    this.held = null;
    this.stood = null;
    const { tape } = this.state;
    this.state = { ...this.state, tape: tape && { ...tape, settled: false }, before: null };
  }

  clear(): void {
    this.state = NOTHING;
    this.held = null;
    this.stood = null;
    this.row = { hears: "unclear", times: 0 };
  }

  /**
   * @param frequenciesHz of the tone that plays, or of those that are to sound together; null when none does
   * @param recent the last seconds that were heard, up to now
   */
  update(
    seconds: number,
    frequenciesHz: readonly number[] | null,
    recent: () => Float32Array[],
  ): SourceAndTape {
    if (frequenciesHz === null) return this.silence();
    if (!areSame(frequenciesHz, this.state.frequenciesHz)) this.clear();
    const sound = recent().map((x) => x.subarray(-Math.round(WINDOW_SECONDS * this.sampleRateHz)));
    const tones = this.tonesIn(sound, frequenciesHz);
    if (tones !== null && frequenciesHz.length > 1 && !soundTogether(tones, sound)) return this.silence();
    // the higher a tone, the better its wavering shows
    const hears = this.hear(sound, Math.max(...frequenciesHz));
    const stood = this.firm(tones && standing(tones, seconds), hears);
    const before = { ...this.state, hears, byHand: this.said !== null, frequenciesHz };
    this.state =
      hears === "tape" && tones !== null
        ? this.off(before, stood ?? latest(tones, seconds), stood !== null)
        : { ...before, source: (hears === "source" && stood) || before.source, tape: unsettled(before.tape) };
    return this.state;
  }

  /** What is followed does not play now. */
  private silence(): SourceAndTape {
    this.row = { hears: "unclear", times: 0 };
    this.state = { ...this.state, hears: null, tape: unsettled(this.state.tape) };
    return this.state;
  }

  /** What comes off the tape, steady or on its way somewhere. */
  private off(state: SourceAndTape, now: StoodAt, steady: boolean): SourceAndTape {
    // a window that reaches back before the turn shows half of each
    const settled = steady && now.atSeconds - this.since > WINDOW_SECONDS;
    const moved = this.stood !== null && farthest(this.stood, now) > MOVED_DB;
    // a slow hand must not be followed as if it were the machine's own wander
    const stoodLong = this.stood === null || now.atSeconds - this.stood.atSeconds > WANDERS_SECONDS;
    if (settled && !moved && stoodLong) this.stood = now;
    const { source } = state;
    return {
      ...state,
      source: source && now.atSeconds - source.atSeconds < BELIEVED_SECONDS ? source : null,
      tape: { ...now, settled },
      before: moved ? this.stood : null,
    };
  }

  /** Source or tape, once it has been the same for a while; in a window that holds a switch that was worked it is neither. */
  private hear(sound: Float32Array[], hz: number): HearsNow {
    if (this.said) return this.said;
    // the louder channel tells it better
    const loudest = louder(sound);
    const latest = Math.round(LATEST_SECONDS * this.sampleRateHz);
    const parts = [loudest.subarray(0, -latest), loudest.subarray(-latest)].map((part) =>
      hearsIn(toneWander(part, this.sampleRateHz, hz)),
    );
    const now = parts[0] === parts[1] ? parts[0] : "unclear";
    this.row = { hears: now, times: this.row.hears === now ? this.row.times + 1 : 1 };
    return this.row.times >= IN_A_ROW ? now : "unclear";
  }

  /** A level that holds still firms up: it is the mean of the last windows, none of which overlaps another. */
  private firm(now: StoodAt | null, hears: HearsNow): StoodAt | null {
    if (now === null || hears === "unclear") {
      this.held = null;
      return now;
    }
    const before = this.held?.hears === hears ? this.held.windows : [];
    const still = before.every((window) => farthest(window, now) < STILL_DB);
    const apart = now.atSeconds - (before.at(-1)?.atSeconds ?? -Infinity) >= WINDOW_SECONDS;
    const windows = still ? (apart ? [...before, now].slice(-MOST_WINDOWS) : before) : [now];
    this.held = { hears, windows };
    return { ...meanOf(windows), atSeconds: now.atSeconds };
  }

  /** Each of the tones; null before enough was heard, or where one is missing. */
  private tonesIn(sound: Float32Array[], frequenciesHz: readonly number[]): TonePair[] | null {
    if (sound[0].length < WINDOW_SECONDS * this.sampleRateHz) return null;
    const tones = frequenciesHz.flatMap((hz) => {
      const meter = new TonePairMeter(this.sampleRateHz, sound.length, hz);
      meter.push(sound);
      return meter.result() ?? [];
    });
    return tones.length === frequenciesHz.length ? tones : null;
  }
}

const areSame = (now: readonly number[], before: readonly number[]): boolean =>
  before.length === 0 ||
  (now.length === before.length && now.every((hz, i) => Math.abs(hz / before[i] - 1) < SAME_TONE));

/** Whether tones are what is heard most of, none of them far below another: one after the other is not together. */
function soundTogether(tones: readonly TonePair[], sound: readonly Float32Array[]): boolean {
  return sound.every((samples, c) => {
    const levels = tones.map(({ channels }) => channels[c].levelDbfs);
    const heard = samples.reduce((sum, v) => sum + v * v, 0) / samples.length;
    const theirs = levels.reduce((sum, level) => sum + 10 ** (level / 10) / 2, 0);
    return theirs > MOSTLY * heard && Math.max(...levels) - Math.min(...levels) < APART_DB;
  });
}

/** The levels, when all of them stand still. */
function standing(tones: readonly TonePair[], atSeconds: number): StoodAt | null {
  const channels = tones.flatMap((tone) => tone.channels);
  const moves = channels.map(({ track }) => {
    const size = Math.floor(track.length / PIECES);
    const means = Array.from({ length: PIECES }, (_, p) => mean(track.subarray(p * size, (p + 1) * size)));
    return Math.max(...means) - Math.min(...means);
  });
  if (Math.max(...moves) > STEADY_DB || channels.some(({ clipped }) => clipped)) return null;
  return {
    levelsDbfs: tones.map((tone) => tone.channels.map(({ levelDbfs }) => levelDbfs)),
    uncertaintyDb: Math.hypot(
      LEAST_UNCERTAINTY_DB,
      Math.max(...channels.map(({ uncertaintyDb }) => uncertaintyDb)),
    ),
    atSeconds,
  };
}

/** Levels that are on their way somewhere, as they were last. */
function latest(tones: readonly TonePair[], atSeconds: number): StoodAt {
  const levelsDbfs = tones.map(({ channels }) =>
    channels.map(({ track }) => mean(track.subarray(-LATEST_FRAMES))),
  );
  return { levelsDbfs, uncertaintyDb: STEADY_DB, atSeconds };
}

/** The largest difference between two moments, dB. */
const farthest = (a: Pick<StoodAt, "levelsDbfs">, b: Pick<StoodAt, "levelsDbfs">): number =>
  Math.max(
    ...a.levelsDbfs.flatMap((levels, t) => levels.map((level, c) => Math.abs(level - b.levelsDbfs[t][c]))),
  );

/** Windows as one: known as well as their number and the differences between them allow. */
function meanOf(windows: StoodAt[]): Omit<StoodAt, "atSeconds"> {
  const n = windows.length;
  const levelsDbfs = windows[0].levelsDbfs.map((levels, t) =>
    levels.map((_, c) => windows.reduce((sum, one) => sum + one.levelsDbfs[t][c], 0) / n),
  );
  const own = Math.hypot(...windows.map(({ uncertaintyDb }) => uncertaintyDb)) / n;
  const spread = Math.max(
    ...levelsDbfs.flatMap((levels, t) =>
      levels.map((level, c) => Math.hypot(...windows.map((one) => one.levelsDbfs[t][c] - level))),
    ),
  );
  const between = n > 1 ? (2 * spread) / Math.sqrt(n * (n - 1)) : 0;
  return { levelsDbfs, uncertaintyDb: Math.max(LEAST_UNCERTAINTY_DB, own, between) };
}

/** Whether a tone that wavers so much, percent, has been on tape. */
export const hearsIn = (wanderPercent: number | null): HearsNow =>
  between(wanderPercent, LOCKED_PERCENT, TAPED_PERCENT);

/** Early and late by which a whole tone is locked to a clock, and has been on tape, microseconds. */
const LOCKED_MICROSECONDS = 1;
const TAPED_MICROSECONDS = 3;

/** Whether a whole tone that comes so early and late, microseconds, has been on tape. */
export const hearsInTone = (timingMicroseconds: number | null): HearsNow =>
  between(timingMicroseconds, LOCKED_MICROSECONDS, TAPED_MICROSECONDS);

/** What a wander is of that is below what is locked, above what has been on tape, or neither. */
function between(wander: number | null, locked: number, taped: number): HearsNow {
  if (wander === null) return "unclear";
  if (wander < locked) return "source";
  return wander > taped ? "tape" : "unclear";
}

const NOTHING: SourceAndTape = {
  hears: null,
  byHand: false,
  frequenciesHz: [],
  source: null,
  tape: null,
  before: null,
};

const unsettled = (tape: SourceAndTape["tape"]): SourceAndTape["tape"] => tape && { ...tape, settled: false };

const mean = (x: Float64Array): number => x.reduce((a, b) => a + b, 0) / x.length;
