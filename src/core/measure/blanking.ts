import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { powerDb } from "@/core/dsp/decibels";
import { HighPass } from "@/core/dsp/filter-section";
import { median, quantileInPlace } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";
import { toneInNoise } from "./tone-in-noise";

/** How an old programme goes down where it was recorded over with nothing going in, one channel. */
export interface Blanked {
  /** By so much it went down, hum left out. */
  downDb: number;
  /** From the last of the programme to what is left of it; a pause in the programme counts in. */
  fallSeconds: number;
  /** It has been quiet for so long, or was until it came back. */
  quietSeconds: number;
  /** The programme, or another, came back after that. */
  cameBack: boolean;
  /** What is left moves: programme, not noise. */
  moves: boolean;
  /** Of an old programme that was one tone: by so much that went down, by narrow filter; null where nothing stands out of noise. */
  toneDownDb: number | null;
}

/** What was heard of a blanking test so far, one channel: null while no programme was heard long enough. */
export interface BlankingChannel {
  programmeSeconds: number;
  programmeDbfs: number;
  /** Null while it has not gone quiet. */
  blanked: Blanked | null;
}

const FRAME_SECONDS = 0.05;
/** Hum is no programme. */
const ABOVE_HZ = 200;
const SECTIONS = 2;
const FAINTEST_DBFS = -55;
/** So much programme has to be heard first; its level is the loudest of as much. */
const PROGRAMME_FRAMES = 40;
/** Quiet is what stays down so far for so long: longer than a pause. */
const QUIET_FRAMES = 60;
const DOWN_DB = 12;
/** What is less louder is as loud. */
const LOUDER = 1.05;
const FROM_DB = 6;
const SETTLED_DB = 3;
const BACK_DB = 6;
const BACK_FRAMES = 10;
/** Nine in ten frames of steady noise lie so close together. */
const STEADY_DB = 2;
/** A tone holds so much of a programme's power. */
const TONE_SHARE = 0.8;
const STRETCH_SECONDS = 1;

/**
 * Hears an old programme go quiet where it was recorded over with nothing going in: how far, how fast, and whether it is
 * noise that is left. Each channel by itself. Blocks of one array a channel, full scale = ±1.
 */
export class BlankingWatch {
  private readonly channels: BlankingOfChannel[];

  constructor(sampleRateHz: number, channelCount: number) {
    this.channels = Array.from({ length: channelCount }, () => new BlankingOfChannel(sampleRateHz));
  }

  push(block: readonly Samples[]): void {
    this.channels.forEach((channel, c) => channel.push(block[c]));
  }

  /** By channel. */
  get result(): Array<BlankingChannel | null> {
    return this.channels.map(({ result }) => result);
  }
}

class BlankingOfChannel {
  private readonly highPass: HighPass;
  private readonly frameLength: number;
  private readonly stretch: Float64Array;
  private power = 0;
  private count = 0;
  private readonly frames: number[] = [];
  private loudest = 0;
  /** The frequency that a programme is which is one tone; null for any other. */
  private toneHz: number | null = null;
  /** First frame of what is quiet, and last of the programme before it; null before it went quiet. */
  private quiet: { from: number; after: number } | null = null;
  private backAt: number | null = null;
  /** The loudest that was left of it while it was quiet. */
  private toneLeftDbfs: number | null = null;

  constructor(private readonly sampleRateHz: number) {
    this.highPass = new HighPass(ABOVE_HZ, SECTIONS, sampleRateHz);
    this.frameLength = Math.round(FRAME_SECONDS * sampleRateHz);
    this.stretch = new Float64Array(Math.round(STRETCH_SECONDS * sampleRateHz));
  }

  push(block: ArrayLike<number>): void {
    const x = this.highPass.push(block);
    for (let from = 0; from < x.length;) {
      const take = Math.min(this.frameLength - this.count, x.length - from);
      const part = x.subarray(from, from + take);
      for (const v of part) this.power += v * v;
      this.stretch.copyWithin(0, take);
      this.stretch.set(part, this.stretch.length - take);
      this.count += take;
      from += take;
      if (this.count < this.frameLength) continue;
      this.take(this.power / this.frameLength);
      this.power = 0;
      this.count = 0;
    }
  }

  get result(): BlankingChannel | null {
    const { frames, loudest, quiet } = this;
    if (powerDb(2 * loudest) < FAINTEST_DBFS) return null;
    const heard = quiet ? quiet.after + 1 : frames.length;
    return {
      programmeSeconds: heard * FRAME_SECONDS,
      programmeDbfs: powerDb(2 * loudest),
      blanked: quiet && this.blanked(quiet),
    };
  }

  private blanked({ from, after }: { from: number; after: number }): Blanked {
    const { frames, backAt, loudest } = this;
    const still = frames.slice(from, backAt ?? frames.length);
    return {
      downDb: powerDb(loudest) - powerDb(mean(still)),
      fallSeconds: (from - after) * FRAME_SECONDS,
      quietSeconds: still.length * FRAME_SECONDS,
      cameBack: backAt !== null,
      moves: !holdsStill(still),
      toneDownDb: this.toneLeftDbfs === null ? null : powerDb(2 * loudest) - this.toneLeftDbfs,
    };
  }

  private take(power: number): void {
    const { frames } = this;
    frames.push(power);
    if (this.backAt !== null) return;
    if (this.quiet) return this.hearQuiet(this.quiet.from);
    const latest = mean(frames.slice(-PROGRAMME_FRAMES));
    if (frames.length >= PROGRAMME_FRAMES && latest > LOUDER * this.loudest) {
      this.loudest = latest;
      this.toneHz = this.toneOfStretch();
    }
    if (powerDb(2 * this.loudest) < FAINTEST_DBFS || frames.length < PROGRAMME_FRAMES + QUIET_FRAMES) return;
    const down = this.loudest * 10 ** (-DOWN_DB / 10);
    const last = frames.slice(-QUIET_FRAMES);
    if (last.some((one) => one > down)) return;
    const programme = this.loudest * 10 ** (-FROM_DB / 10);
    const settled = median(last) * 10 ** (SETTLED_DB / 10);
    const after = frames.findLastIndex((one) => one > programme);
    this.quiet = { after, from: frames.findIndex((one, i) => i > after && one < settled) };
    this.toneLeftDbfs = this.toneLeft();
  }

  private hearQuiet(from: number): void {
    const { frames } = this;
    const still = frames.slice(from, from + QUIET_FRAMES);
    const back = median(still) * 10 ** (BACK_DB / 10);
    const latest = frames.slice(-BACK_FRAMES);
    // longer than a click
    if (median(latest) > back) {
      this.backAt = frames.length - latest.length + latest.findIndex((one) => one > back);
      return;
    }
    // while it comes back it is not what was left of it
    if (frames.length % PROGRAMME_FRAMES !== 0 || latest.some((one) => one > back)) return;
    const left = this.toneLeft();
    if (left !== null) this.toneLeftDbfs = Math.max(left, this.toneLeftDbfs ?? left);
  }

  private spectrum() {
    const { stretch, sampleRateHz } = this;
    return amplitudeSpectrum(
      stretch,
      sampleRateHz,
      2 ** Math.ceil(Math.log2(stretch.length)),
      stretch.length,
    );
  }

  private toneOfStretch(): number | null {
    const { amplitude, binHz, binsPerLine } = this.spectrum();
    const powers = amplitude.map((a) => a * a);
    const top = powers.indexOf(powers.reduce((a, b) => Math.max(a, b), 0));
    const reach = Math.ceil(4 * binsPerLine + (0.005 * top * binHz) / binHz);
    const sum = (from: number, to: number) => powers.slice(Math.max(0, from), to).reduce((a, b) => a + b, 0);
    return sum(top - reach, top + reach + 1) > TONE_SHARE * sum(0, powers.length) ? top * binHz : null;
  }

  private toneLeft(): number | null {
    return this.toneHz === null ? null : toneInNoise(this.spectrum(), this.toneHz).toneDbfs;
  }
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);
}

function holdsStill(frames: readonly number[]): boolean {
  const [low, high] = [0.05, 0.95].map((share) => quantileInPlace(Float64Array.from(frames), share));
  return powerDb(high) - powerDb(low) < STEADY_DB;
}
