import { powerDb, powerOf } from "@/core/dsp/decibels";
import type { Hum } from "./hum";
import type { Level } from "./level-meter";
import type { SoundGaps } from "./sound-gaps";

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
  /** How long the sound is that their levels are of, two seconds at most. */
  seconds: number;
  channels: Array<{ channel: string; /** How far tenths of a second lie apart. */ swingDb: number } & Level>;
  hum: Hum;
  /** Samples that never arrived, as far as the sender knows, and holes heard in the sound itself. */
  lostSamples: number;
  findings: Finding[];
}

/** A tenth of a second of what arrived. */
export interface Slice {
  levels: Level[];
  /** Mean products of the first two channels below 500 Hz, and of their difference over the whole band. */
  low: { ll: number; rr: number; lr: number };
  difference: number;
  /** A hole of lost sound lies in it: its level is not that of the source. */
  holed: boolean;
}

const SILENCE_DBFS = -90;
const MISSING_BELOW_OTHER_DB = 40;
const MISSING_DBFS = -75;
const SAME_DB = -70;
const INVERTED_CORRELATION = -0.9;
/** Share of the power that must lie below 500 Hz for polarity to be judged by it. */
const LOW_SHARE = 0.02;
const DC_PERCENT = 0.5;
const HUM_BELOW_SIGNAL_DB = 40;

/** Level of the strongest hum line in dBFS; −200 without any. */
export const loudest = (hum: Hum) => Math.max(-200, ...hum.lines.map(({ levelDb }) => levelDb));

type Channels = SignalReport["channels"];

export function arrives(channels: Channels): Finding {
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

export function clipping(channels: Channels): Finding {
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

export function bothChannels(channels: Channels, recent: Slice[]): Finding {
  const loud = Math.max(...channels.map(({ rmsDbfs }) => rmsDbfs));
  const difference = powerDb(recent.reduce((sum, slice) => sum + slice.difference, 0) / recent.length);
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
export function polarity(recent: Slice[]): Finding {
  const sum = (of: (low: Slice["low"]) => number) => recent.reduce((total, { low }) => total + of(low), 0);
  const [ll, rr, lr] = [sum(({ ll: v }) => v), sum(({ rr: v }) => v), sum(({ lr: v }) => v)];
  const powers = recent.flatMap(({ levels }) => levels.map(({ rmsDbfs }) => powerOf(rmsDbfs)));
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

export function noGaps(lost: number, gaps: SoundGaps, sampleRateHz: number): Finding {
  const { count, missingSamples, latestAt } = gaps;
  if (lost + missingSamples === 0)
    return { check: "no gaps", state: "sound", says: "no block was lost", advice: "" };
  const says = [
    ...(lost > 0 ? [`${lost} samples lost on their way through the browser`] : []),
    ...(count > 0
      ? [
          `${missingSamples} samples lost before they arrived, in ${count} ${count === 1 ? "hole" : "holes"}, the latest ${(latestAt / sampleRateHz).toFixed(1)} s after the start`,
        ]
      : []),
  ];
  return {
    check: "no gaps",
    state: "fault",
    says: `${says.join("; ")}; bridged in speed and flutter`,
    advice: "The computer is too busy or the connection poor: close other programs, use another port.",
  };
}

export function mainsHum(hum: Hum, channels: Channels): Finding {
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

export function direct(channels: Channels): Finding {
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
