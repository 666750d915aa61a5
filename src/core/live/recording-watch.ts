import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { median } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";
import { channelName } from "@/core/measure/channel-name";
import { toneInNoise } from "@/core/measure/tone-in-noise";
import type { RecordingRun, Went } from "@/core/records/recording-run";

/** What is listened for in a watched recording: two tones that are sent, and one that was on the tape before. */
export interface WatchedTones {
  middleHz: number;
  trebleHz: number;
  /** Of the old programme, which has to stay erased. */
  oldHz: number;
}

/** The tones of the bias preset, and the one that is recorded first to be erased. */
export const WATCHED_TONES: WatchedTones = { middleHz: 315, trebleHz: 10_000, oldHz: 1000 };

/** A run that is taken up again. */
export interface Resumed {
  run: RecordingRun;
  /** How much of it nobody heard since. */
  missedSeconds: number;
}

const FRAME_SECONDS = 0.35;
const HOP_SECONDS = 0.2;
const FAINTEST_DBFS = -75;
/** So long a recording has to have been there before it has begun, and from then to then it is learned. */
const BEGINS_SECONDS = 0.6;
const LEARNED_FROM_SECONDS = 1;
const LEARNED_TO_SECONDS = 3;
/** A level that moved by more, for so long, has gone: longer than a drop-out, told well within two seconds. */
export const GONE_DB = 3;
const GONE_SECONDS = 0.9;
/** The old programme is back when it stands so much above what was left of it. */
export const BACK_DB = 10;
const ENDED_SECONDS = 4;
/** Tones that come again begin anew when they stand so near to where the last recording began. */
const TRACK_STEP_SECONDS = 1;
const MOST_STEPS = 2000;
const LOWEST_DB = -60;

interface Frame {
  /** On the clock of the source, its middle. */
  atSeconds: number;
  /** By tone, then by channel: the two that are sent and the old one. */
  levels: number[][];
  /** Whether both tones that are sent stand out of what is beside them, on every channel. */
  there: boolean;
  /** Whether anything of them does, on any. */
  anyLeft: boolean;
}

/**
 * Watches a recording come off the tape, and finds the second at which treble, level or erase goes. It begins by itself
 * when its tones do, and is told when they are the source's and not the tape's.
 */
export class RecordingWatch {
  private kept: Float32Array[];
  private filled = 0;
  private seconds = 0;
  private nextFrame = FRAME_SECONDS;
  private run: RecordingRun | null;
  /** On the clock of the source. */
  private beganAt = 0;
  private beginning: Frame[] = [];
  /** Since when each of what can go is off. */
  private offSince: Record<Went["what"], number | null> = { level: null, treble: null, erase: null };
  private lastHeardAt = 0;
  private isSource = false;
  /** Levels of both tones as they went in; null until that was heard. */
  private sent: number[][] | null = null;
  private readonly step = { ends: 0, worst: [0, 0, 0], any: false };

  /** @param resumed a run that was watched before */
  constructor(
    private readonly sampleRateHz: number,
    private readonly channelCount: number,
    private readonly tones: WatchedTones,
    resumed: Resumed | null = null,
  ) {
    const frame = Math.round(FRAME_SECONDS * sampleRateHz);
    this.kept = Array.from({ length: channelCount }, () => new Float32Array(frame));
    this.run = null;
    if (resumed) this.resume(resumed.run, resumed.missedSeconds);
  }

  private resume(run: RecordingRun, missedSeconds: number): void {
    const fromSeconds = run.seconds;
    const toSeconds = fromSeconds + missedSeconds;
    const missed = missedSeconds > 0 ? [...run.missed, { fromSeconds, toSeconds }] : run.missed;
    this.run = { ...run, missed, ended: false };
    this.beganAt = -toSeconds;
    this.step.ends = run.track.dbByTone[0].length * run.track.stepSeconds;
    this.fillTrack(toSeconds);
  }

  /** The run so far; null before a recording has begun. */
  get result(): RecordingRun | null {
    return this.run && { ...this.run, missed: [...this.run.missed], went: [...this.run.went] };
  }

  /** Whether what is heard now is the source; a run that was the source's is forgotten. */
  hears(now: "source" | "tape" | "unclear" | null): void {
    this.isSource = now === "source";
    if (!this.run) return;
    if (now === "tape") this.run.offTape = true;
    if (now === "source" && this.run.offTape === null) this.forget();
  }

  push(block: readonly Samples[]): void {
    const size = this.kept[0].length;
    let from = 0;
    while (from < block[0].length) {
      const until = Math.round((this.nextFrame - this.seconds) * this.sampleRateHz);
      const take = Math.max(1, Math.min(until, block[0].length - from, size));
      this.kept.forEach((x, c) => {
        x.copyWithin(0, take);
        x.set(block[c].subarray(from, from + take), size - take);
      });
      from += take;
      this.filled = Math.min(size, this.filled + take);
      this.seconds += take / this.sampleRateHz;
      if (this.seconds < this.nextFrame - 0.5 / this.sampleRateHz) continue;
      this.nextFrame += HOP_SECONDS;
      if (this.filled < size) continue;
      if (this.isSource) this.hearSent(this.frame());
      else this.take(this.frame());
    }
  }

  private frame(): Frame {
    const { middleHz, trebleHz, oldHz } = this.tones;
    const size = 2 ** Math.ceil(Math.log2(this.kept[0].length));
    const spectra = this.kept.map((x) => amplitudeSpectrum(x, this.sampleRateHz, size, x.length));
    const at = [middleHz, trebleHz, oldHz].map((hz) =>
      spectra.map((spectrum) => {
        const { levelDbfs, standsOut } = toneInNoise(spectrum, hz);
        return { levelDbfs, standsOut: standsOut && levelDbfs > FAINTEST_DBFS };
      }),
    );
    const sent = at.slice(0, 2);
    return {
      atSeconds: this.seconds - FRAME_SECONDS / 2,
      levels: at.map((channels) => channels.map(({ levelDbfs }) => levelDbfs)),
      there: sent.every((channels) => channels.every(({ standsOut }) => standsOut)),
      anyLeft: sent.some((channels) => channels.some(({ standsOut }) => standsOut)),
    };
  }

  private hearSent({ there, levels }: Frame): void {
    if (there) this.sent = levels.slice(0, 2);
  }

  private take(frame: Frame): void {
    const { run } = this;
    if (run === null || run.ended) return this.begin(frame);
    const at = frame.atSeconds - this.beganAt;
    run.seconds = Math.max(run.seconds, at);
    run.now = frame.levels;
    run.isLeft = frame.anyLeft;
    if (frame.anyLeft) this.lastHeardAt = frame.atSeconds;
    if (run.began === null) this.learn(run, frame, at);
    else this.judge(run, run.began, frame, at);
    const quiet = frame.atSeconds - this.lastHeardAt;
    if (quiet > ENDED_SECONDS) run.ended = true;
  }

  /** A recording begins once both tones have been there for a while. */
  private begin(frame: Frame): void {
    this.beginning = frame.there ? [...this.beginning, frame] : [];
    const first = this.beginning.at(0);
    if (!first || frame.atSeconds - first.atSeconds < BEGINS_SECONDS) return;
    this.beganAt = first.atSeconds - FRAME_SECONDS / 2;
    this.lastHeardAt = frame.atSeconds;
    this.offSince = { level: null, treble: null, erase: null };
    Object.assign(this.step, { ends: TRACK_STEP_SECONDS, worst: [0, 0, 0], any: false });
    this.run = {
      seconds: frame.atSeconds - this.beganAt,
      missed: [],
      began: null,
      now: frame.levels,
      went: [],
      isLeft: true,
      ended: false,
      offTape: null,
      ...(this.sent && { sent: this.sent }),
      track: { stepSeconds: TRACK_STEP_SECONDS, dbByTone: [[], [], []] },
    };
  }

  private learn(run: RecordingRun, frame: Frame, at: number): void {
    if (at < LEARNED_FROM_SECONDS) return;
    this.beginning = at - HOP_SECONDS < LEARNED_FROM_SECONDS ? [frame] : [...this.beginning, frame];
    if (at < LEARNED_TO_SECONDS) return;
    const frames = this.beginning;
    this.beginning = [];
    run.began = frame.levels.map((channels, t) =>
      channels.map((_, c) => median(frames.map(({ levels }) => levels[t][c]))),
    );
    this.fillTrack(at);
  }

  private judge(run: RecordingRun, began: number[][], frame: Frame, at: number): void {
    const moved = frame.levels.map((channels, t) => channels.map((level, c) => level - began[t][c]));
    this.keepTrack(run, moved, at);
    const [middle, treble, old] = moved;
    const [middleBegan] = began;
    const off: Record<Went["what"], boolean[]> = {
      level: middle.map((db) => Math.abs(db) > GONE_DB),
      treble: treble.map((db) => Math.abs(db) > GONE_DB),
      // what rises out of the noise by chance stays far below what was recorded
      erase: old.map((db, c) => db > BACK_DB && frame.levels[2][c] > middleBegan[c] - 20),
    };
    for (const what of ["level", "treble", "erase"] as const) {
      const channels = off[what].flatMap((isOff, c) => (isOff ? channelName(c, this.channelCount) : []));
      if (channels.length === 0) {
        this.offSince[what] = null;
        continue;
      }
      const since = (this.offSince[what] ??= frame.atSeconds);
      const known = run.went.find((one) => one.what === what);
      const of = { level: middle, treble, erase: old }[what];
      const byDb = of.toSorted((a, b) => Math.abs(b) - Math.abs(a))[0];
      if (known) Object.assign(known, { byDb: Math.abs(byDb) > Math.abs(known.byDb) ? byDb : known.byDb });
      else if (frame.atSeconds - since >= GONE_SECONDS)
        run.went = [...run.went, { what, atSeconds: since - this.beganAt, channels, byDb }].toSorted(
          (a, b) => a.atSeconds - b.atSeconds,
        );
    }
  }

  private keepTrack(run: RecordingRun, moved: number[][], at: number): void {
    const { step } = this;
    while (at >= step.ends) this.closeStep(run);
    step.any = true;
    moved.forEach((channels, t) => {
      const [worst] = channels.toSorted((a, b) => Math.abs(b) - Math.abs(a));
      if (Math.abs(worst) > Math.abs(step.worst[t])) step.worst[t] = Math.max(LOWEST_DB, worst);
    });
  }

  private closeStep(run: RecordingRun): void {
    const { step } = this;
    const { track } = run;
    track.dbByTone.forEach((values, t) => values.push(step.any ? step.worst[t] : null));
    step.worst = [0, 0, 0];
    step.any = false;
    step.ends += track.stepSeconds;
    if (track.dbByTone[0].length < MOST_STEPS) return;
    track.dbByTone = track.dbByTone.map((values) =>
      Array.from({ length: values.length >> 1 }, (_, i) => further(values[2 * i], values[2 * i + 1])),
    );
    track.stepSeconds *= 2;
  }

  /** Nobody listened up to then. */
  private fillTrack(until: number): void {
    if (!this.run) return;
    this.step.ends = Math.max(this.step.ends, this.run.track.stepSeconds);
    while (until >= this.step.ends) this.closeStep(this.run);
  }

  private forget(): void {
    this.run = null;
    this.beginning = [];
  }
}

const further = (a: number | null, b: number | null): number | null =>
  a === null ? b : b === null ? a : Math.abs(a) > Math.abs(b) ? a : b;
