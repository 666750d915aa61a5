import { meanLevelDb } from "./mean-level";
import { lineThrough } from "@/core/dsp/line-fit";
import type { Samples } from "@/core/dsp/signal";
import { channelName } from "./channel-name";
import { HumMeter } from "./hum";
import { LevelMeter, type Level } from "./level-meter";
import {
  arrives,
  bothChannels,
  clipping,
  direct,
  loudest,
  mainsHum,
  noGaps,
  polarity,
  type Finding,
  type SignalReport,
  type Slice,
} from "./signal-findings";
import { SoundGaps } from "./sound-gaps";
import { bandLimitOf, LOOKS_NEEDED, SpectrumWatch } from "./spectrum-watch";

const SLICE_SECONDS = 0.1;
const KEEP_SLICES = 100;
/** Present state is judged by these latest slices. */
const RECENT_SLICES = 20;
const GLIDE_DB = 1;
const GLIDE_SCATTER_DB = 0.15;

/**
 * Judges whether what arrives is fit to be measured: level, clipping, silence, missing, equal or inverted
 * channels, mains hum, DC, a gain or noise filter at work in the path, a sample-rate conversion, holes. Push
 * blocks of any length; ask at any time. Everything is told from the sound of the last ten seconds.
 */
export class SignalCheck {
  private readonly meters: LevelMeter[];
  private readonly hums: HumMeter[];
  private readonly gaps: SoundGaps;
  private readonly watch: SpectrumWatch;
  private readonly slices: Slice[] = [];
  private readonly perSlice: number;
  private inSlice = 0;
  private heard = 0;
  private holed = false;
  private low = { ll: 0, rr: 0, lr: 0, count: 0 };
  private difference = 0;
  private lost = 0;

  constructor(
    private readonly sampleRateHz: number,
    private readonly channelCount: number,
  ) {
    const each = <T>(make: () => T) => Array.from({ length: channelCount }, make);
    this.meters = each(() => new LevelMeter());
    this.hums = each(() => new HumMeter(sampleRateHz, 0.5));
    this.gaps = new SoundGaps();
    this.watch = new SpectrumWatch(sampleRateHz);
    this.perSlice = Math.round(SLICE_SECONDS * sampleRateHz);
  }

  /** The sender knows of samples that never arrived. */
  lose(samples: number): void {
    this.lost += samples;
  }

  push(block: Samples[]): void {
    const length = block[0].length;
    for (let at = 0; at < length;) {
      const take = Math.min(this.perSlice - this.inSlice, length - at);
      this.take(block.map((channel) => channel.subarray(at, at + take)));
      at += take;
      this.inSlice += take;
      if (this.inSlice === this.perSlice) this.closeSlice();
    }
  }

  private take(block: Samples[]): void {
    block.forEach((samples, c) => this.meters[c].push(samples));
    const slice = this.slices.at(-1);
    const sliceStart = this.heard - this.inSlice;
    for (const { from } of [...this.gaps.push(block), ...(this.gaps.open ? [this.gaps.open] : [])]) {
      this.holed = true;
      if (slice && from < sliceStart) slice.holed = true;
    }
    this.heard += block[0].length;
    this.watch.push(block[0]);
    const [left, right] = block.map((samples, c) => this.hums[c].push(samples));
    if (!right) return;
    const n = Math.min(left.length, right.length);
    this.low.count += n;
    for (let i = 0; i < n; i++) {
      this.low.ll += left[i] * left[i];
      this.low.rr += right[i] * right[i];
      this.low.lr += left[i] * right[i];
    }
    const [l, r] = block;
    for (let i = 0; i < l.length; i++) this.difference += (l[i] - r[i]) ** 2;
  }

  private closeSlice(): void {
    const { ll, rr, lr, count } = this.low;
    const mean = (sum: number) => sum / Math.max(1, count);
    this.slices.push({
      levels: this.meters.map((meter) => meter.level),
      low: { ll: mean(ll), rr: mean(rr), lr: mean(lr) },
      difference: this.difference / this.perSlice,
      holed: this.holed,
    });
    this.holed = false;
    if (this.slices.length > KEEP_SLICES) this.slices.shift();
    for (const meter of this.meters) meter.reset();
    this.low = { ll: 0, rr: 0, lr: 0, count: 0 };
    this.difference = 0;
    this.inSlice = 0;
  }

  /** Null until a tenth of a second has arrived. */
  get report(): SignalReport | null {
    if (this.slices.length === 0) return null;
    const whole = this.slices.filter(({ holed }) => !holed);
    const recent = (whole.length > 0 ? whole : this.slices).slice(-RECENT_SLICES);
    const channels = this.meters.map((_, c) => ({
      channel: channelName(c, this.channelCount),
      ...together(recent.map(({ levels }) => levels[c])),
      swingDb: rangeOf(recent.map(({ levels }) => levels[c].rmsDbfs)),
      clippedSamples: this.slices.reduce((sum, { levels }) => sum + levels[c].clippedSamples, 0),
    }));
    const hum = this.hums.map((meter) => meter.hum).reduce((a, b) => (loudest(b) > loudest(a) ? b : a));
    const lostSamples = this.lost + this.gaps.missingSamples;
    const findings = [
      arrives(channels),
      clipping(channels),
      ...(this.channelCount > 1 ? [bothChannels(channels, recent), polarity(recent)] : []),
      this.steadyGain(),
      this.sampleRate(),
      noGaps(this.lost, this.gaps, this.sampleRateHz),
      mainsHum(hum, channels),
      direct(channels),
    ];
    return { seconds: SLICE_SECONDS * recent.length, channels, hum, lostSamples, findings };
  }

  /**
   * A tape's level trembles; a gain control or a noise suppressor glides, and takes all channels along. Judged
   * by six seconds of levels: a straight line must describe them well and lead somewhere.
   */
  private steadyGain(): Finding {
    const span = this.slices.filter(({ holed }) => !holed).slice(-60);
    const finding = (state: Finding["state"], says: string): Finding => ({
      check: "steady gain",
      state,
      says,
      advice: "",
    });
    if (span.length < 60 || this.watch.tonality < 0.5)
      return finding("open", "needs six seconds of a steady tone");
    const sound = finding("sound", "the gain stands still");
    const glides = this.meters.map((_, c) => glideOf(span.map(({ levels }) => levels[c].rmsDbfs)));
    const [first] = glides;
    const alike = glides.every(
      ({ total, scatter }) =>
        Math.abs(total) > GLIDE_DB && scatter < GLIDE_SCATTER_DB && Math.abs(total - first.total) < 0.3,
    );
    if (!alike) return sound;
    return {
      check: "steady gain",
      state: "fault",
      says: `the level of a steady tone glides by ${first.total.toFixed(1)} dB in 6 s`.replace("-", "−"),
      advice:
        "Something in the path rides the gain or suppresses steady sound. Turn off automatic gain, noise suppression and sound enhancement in the system's settings for this input.",
    };
  }

  private sampleRate(): Finding {
    if (this.watch.looks < LOOKS_NEEDED)
      return { check: "sample rate", state: "open", says: "needs two seconds of sound", advice: "" };
    const limit = bandLimitOf(this.watch, this.sampleRateHz);
    return limit === null
      ? { check: "sample rate", state: "sound", says: `${this.sampleRateHz} Hz, not converted`, advice: "" }
      : {
          check: "sample rate",
          state: "note",
          says: `nothing above ${(limit / 1000).toFixed(1)} kHz: the sound was converted from ${Math.round(2 * limit)} Hz or filtered`,
          advice: `Set the device to ${this.sampleRateHz} Hz in the system's settings, or use its wired input; response above that frequency cannot be measured.`,
        };
  }
}

function together(levels: Level[]): Level {
  const top = (of: (level: Level) => number) => Math.max(...levels.map(of));
  return {
    peakDbfs: top(({ peakDbfs }) => peakDbfs),
    truePeakDbfs: top(({ truePeakDbfs }) => truePeakDbfs),
    rmsDbfs: meanLevelDb(levels.map(({ rmsDbfs }) => rmsDbfs)),
    dcPercent: levels.reduce((sum, { dcPercent }) => sum + dcPercent, 0) / levels.length,
    clippedSamples: levels.reduce((sum, { clippedSamples }) => sum + clippedSamples, 0),
  };
}

const rangeOf = (values: number[]): number => Math.max(...values) - Math.min(...values);

/** What equally spaced values climb in all along a straight line, and their scatter about it. */
function glideOf(values: number[]): { total: number; scatter: number } {
  const { slope, scatter } = lineThrough(values.map((value, i) => [i, value]));
  return { total: slope * (values.length - 1), scatter };
}
