import { channelName } from "./channel-name";
import { HumMeter, type Hum } from "./hum";
import { LevelMeter, type Level } from "./level-meter";
import { SoundGaps } from "./sound-gaps";
import { bandLimitOf, LOOKS_NEEDED, SpectrumWatch } from "./spectrum-watch";

/** What a finding is about; the screen shows one line each. */
export type CheckName =
  | "arrives"
  | "clipping"
  | "both channels"
  | "polarity"
  | "steady gain"
  | "sample rate"
  | "no gaps"
  | "mains hum"
  | "DC";

export interface Finding {
  check: CheckName;
  /** Open: what plays now cannot tell. */
  state: "sound" | "open" | "note" | "fault";
  says: string;
  /** What to do about it; empty while it is sound. */
  advice: string;
}

export interface SignalReport {
  channels: Array<{ channel: string } & Level>;
  hum: Hum;
  /** Samples that never arrived, as far as the sender knows, and holes heard in the sound itself. */
  lostSamples: number;
  findings: Finding[];
}

const SLICE_SECONDS = 0.1;
const KEEP_SLICES = 100;
/** Present state is judged by these latest slices. */
const RECENT_SLICES = 20;
const SILENCE_DBFS = -90;
const MISSING_BELOW_OTHER_DB = 40;
const MISSING_DBFS = -75;
const SAME_DB = -70;
const INVERTED_CORRELATION = -0.9;
/** Share of the power that must lie below 500 Hz for polarity to be judged by it. */
const LOW_SHARE = 0.02;
const DC_PERCENT = 0.5;
const HUM_BELOW_SIGNAL_DB = 40;
const GLIDE_DB = 1;
const GLIDE_SCATTER_DB = 0.15;

interface Slice {
  levels: Level[];
  /** Mean products of the first two channels below 500 Hz, and of their difference over the whole band. */
  low: { ll: number; rr: number; lr: number };
  difference: number;
}

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

  push(block: Array<Float64Array | Float32Array>): void {
    const length = block[0].length;
    for (let at = 0; at < length;) {
      const take = Math.min(this.perSlice - this.inSlice, length - at);
      this.take(block.map((channel) => channel.subarray(at, at + take)));
      at += take;
      this.inSlice += take;
      if (this.inSlice === this.perSlice) this.closeSlice();
    }
  }

  private take(block: Array<Float64Array | Float32Array>): void {
    block.forEach((samples, c) => this.meters[c].push(samples));
    this.gaps.push(block);
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
    });
    if (this.slices.length > KEEP_SLICES) this.slices.shift();
    for (const meter of this.meters) meter.reset();
    this.low = { ll: 0, rr: 0, lr: 0, count: 0 };
    this.difference = 0;
    this.inSlice = 0;
  }

  /** Null until a tenth of a second has arrived. */
  get report(): SignalReport | null {
    if (this.slices.length === 0) return null;
    const recent = this.slices.slice(-RECENT_SLICES);
    const channels = this.meters.map((_, c) => ({
      channel: channelName(c, this.channelCount),
      ...together(recent.map(({ levels }) => levels[c])),
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
    return { channels, hum, lostSamples, findings };
  }

  /**
   * A tape's level trembles; a gain control or a noise suppressor glides, and takes all channels along. Judged
   * by six seconds of levels: a straight line must describe them well and lead somewhere.
   */
  private steadyGain(): Finding {
    const span = this.slices.slice(-60);
    const finding = (state: Finding["state"], says: string): Finding => ({
      check: "steady gain",
      state,
      says,
      advice: "",
    });
    if (span.length < 60 || this.watch.tonality < 0.5)
      return finding("open", "needs six seconds of a steady tone");
    const sound = finding("sound", "the gain stands still");
    const glides = this.meters.map((_, c) => lineThrough(span.map(({ levels }) => levels[c].rmsDbfs)));
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

const loudest = (hum: Hum) => Math.max(-200, ...hum.lines.map(({ levelDb }) => levelDb));

function together(levels: Level[]): Level {
  const top = (of: (level: Level) => number) => Math.max(...levels.map(of));
  const power = levels.reduce((sum, { rmsDbfs }) => sum + 10 ** (rmsDbfs / 10), 0) / levels.length;
  return {
    peakDbfs: top(({ peakDbfs }) => peakDbfs),
    truePeakDbfs: top(({ truePeakDbfs }) => truePeakDbfs),
    rmsDbfs: 10 * Math.log10(Math.max(power, 1e-20)),
    dcPercent: levels.reduce((sum, { dcPercent }) => sum + dcPercent, 0) / levels.length,
    clippedSamples: levels.reduce((sum, { clippedSamples }) => sum + clippedSamples, 0),
  };
}

type Channels = SignalReport["channels"];

function arrives(channels: Channels): Finding {
  const silent = channels.every(({ peakDbfs }) => peakDbfs < SILENCE_DBFS);
  if (silent)
    return {
      check: "arrives",
      state: "fault",
      says: "nothing arrives",
      advice: "Is the input muted, is it another device, is the deck playing? Choose the input again.",
    };
  const loud = Math.max(...channels.map(({ rmsDbfs }) => rmsDbfs));
  const missing = channels.find(
    ({ rmsDbfs }) => rmsDbfs < MISSING_DBFS && rmsDbfs < loud - MISSING_BELOW_OTHER_DB,
  );
  if (missing)
    return {
      check: "arrives",
      state: "fault",
      says: `${missing.channel} is missing`,
      advice: `Check the ${missing.channel} lead and plug, then whether the deck plays that channel: swap the leads and see whether the fault moves.`,
    };
  return { check: "arrives", state: "sound", says: "sound arrives on every channel", advice: "" };
}

function clipping(channels: Channels): Finding {
  const clipped = channels.filter(({ clippedSamples }) => clippedSamples > 0);
  if (clipped.length === 0) return { check: "clipping", state: "sound", says: "nothing clips", advice: "" };
  const total = clipped.reduce((sum, { clippedSamples }) => sum + clippedSamples, 0);
  return {
    check: "clipping",
    state: "fault",
    says: `${clipped.map(({ channel }) => channel).join(" and ")} clipped: ${total} samples in 10 s`,
    advice: "Lower the input level until the peaks stay below −3 dBFS.",
  };
}

function bothChannels(channels: Channels, recent: Slice[]): Finding {
  const loud = Math.max(...channels.map(({ rmsDbfs }) => rmsDbfs));
  const difference =
    10 *
    Math.log10(Math.max(1e-20, recent.reduce((sum, slice) => sum + slice.difference, 0) / recent.length));
  if (loud > SILENCE_DBFS && difference < loud + SAME_DB)
    return {
      check: "both channels",
      state: "note",
      says: "both channels carry the very same sound",
      advice: "The input may be mono, or the leads joined. Azimuth and balance cannot be measured like this.",
    };
  return { check: "both channels", state: "sound", says: "two channels of their own", advice: "" };
}

/** Only low tones tell: at short wavelengths a tilted head alone can turn the phase round. */
function polarity(recent: Slice[]): Finding {
  const sum = (of: (low: Slice["low"]) => number) => recent.reduce((total, { low }) => total + of(low), 0);
  const [ll, rr, lr] = [sum(({ ll: v }) => v), sum(({ rr: v }) => v), sum(({ lr: v }) => v)];
  const powers = recent.flatMap(({ levels }) => levels.map(({ rmsDbfs }) => 10 ** (rmsDbfs / 10)));
  const whole = powers.reduce((a, b) => a + b, 0) / powers.length;
  if (Math.min(ll, rr) / recent.length < LOW_SHARE * whole)
    return {
      check: "polarity",
      state: "open",
      says: "needs a tone or programme below 500 Hz on both channels",
      advice: "",
    };
  if (lr / Math.sqrt(ll * rr) < INVERTED_CORRELATION)
    return {
      check: "polarity",
      state: "fault",
      says: "the channels are against each other: one is inverted",
      advice:
        "Compare on another tape or deck; then look for a crossed plug, head or cartridge lead. In mono this machine would cancel itself.",
    };
  return { check: "polarity", state: "sound", says: "the channels agree in polarity", advice: "" };
}

function noGaps(lost: number, gaps: SoundGaps, sampleRateHz: number): Finding {
  const { count, missingSamples, latestAt } = gaps;
  if (lost + missingSamples === 0)
    return { check: "no gaps", state: "sound", says: "no block was lost", advice: "" };
  const holes =
    count > 0
      ? `, in ${count} ${count === 1 ? "hole" : "holes"}, the latest ${(latestAt / sampleRateHz).toFixed(1)} s after the start`
      : "";
  return {
    check: "no gaps",
    state: "fault",
    says: `${lost + missingSamples} samples lost${holes}`,
    advice: "The computer is too busy or the connection poor: close other programs, use another port.",
  };
}

function mainsHum(hum: Hum, channels: Channels): Finding {
  const level = loudest(hum);
  const loud = Math.max(...channels.map(({ rmsDbfs }) => rmsDbfs)) + 3.01;
  if (hum.mainsHz === null) return { check: "mains hum", state: "sound", says: "no mains hum", advice: "" };
  const says = `${hum.mainsHz} Hz mains hum, ${level.toFixed(0)} dBFS`.replace("-", "−");
  if (level < loud - HUM_BELOW_SIGNAL_DB) return { check: "mains hum", state: "sound", says, advice: "" };
  return {
    check: "mains hum",
    state: "note",
    says,
    advice: "Join the grounds of deck and computer at one point only, keep leads away from transformers.",
  };
}

function direct(channels: Channels): Finding {
  const worst = channels.reduce((a, b) => (Math.abs(b.dcPercent) > Math.abs(a.dcPercent) ? b : a));
  const says = `DC ${worst.dcPercent.toFixed(2)} % of full scale`.replace("-", "−");
  if (Math.abs(worst.dcPercent) < DC_PERCENT) return { check: "DC", state: "sound", says, advice: "" };
  return {
    check: "DC",
    state: "note",
    says: `${says} on ${worst.channel}`,
    advice:
      "The input's converter or a leaking coupling capacitor; it costs headroom and hides the true level.",
  };
}

/** Least-squares line through equally spaced values: what it climbs in all, and the scatter about it. */
function lineThrough(values: number[]): { total: number; scatter: number } {
  const n = values.length;
  const middle = (n - 1) / 2;
  const mean = values.reduce((a, b) => a + b, 0) / n;
  let xy = 0;
  let xx = 0;
  values.forEach((value, i) => {
    xy += (i - middle) * (value - mean);
    xx += (i - middle) ** 2;
  });
  const slope = xy / xx;
  const rest = values.map((value, i) => value - mean - slope * (i - middle));
  return { total: slope * (n - 1), scatter: Math.hypot(...rest) / Math.sqrt(n) };
}
