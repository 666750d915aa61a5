import type { DropOut } from "@/core/measure/drop-outs";
import { together } from "@/core/measure/drop-outs";
import type { Machine } from "@/core/records/machine";
import { ZERO_DBFS, type ReturnedChannel, type ReturnedPass } from "@/core/returned/returned";
import { BIAS_TABLE } from "@/core/standards/bias-curves";
import { channelNames, heardOn } from "./channels";
import type { Recorded } from "./recorded";

/** A figure with its ± at 95 %. */
export interface Known {
  value: number;
  uncertainty: number;
}

/** What a pass of the passport sequence tells of a tape in one channel; null where it was not heard. */
export interface PassportChannel {
  channel: string;
  /** 400 Hz at 0, came back less went in, dB. */
  sensitivity: Known | null;
  /** 10 kHz re 400 Hz, both 20 dB down. */
  treble: Known | null;
  /** 15 kHz re 400 Hz, likewise: what a bias knob is set by. */
  top: Known | null;
  /** 400 Hz 20 dB down, came back less went in: what a level knob is set by. */
  middle: Known | null;
  /** Level re 0 at which the third harmonic reaches 3 %. */
  mol: Known | null;
  /** The loudest that was sent is not loud enough for 3 %, dB re 0. */
  molAbove: number | null;
  /** Of the recorded silence, A-weighted re 0. */
  noise: Known | null;
  dropOuts: { seconds: number; events: DropOut[] } | null;
}

const LEVEL_DB = 0.1;
const MOL_DB = 0.4;
const NOISE_DB = 0.4;
/** The table of bias is good for cassette speeds only. */
const CASSETTE_CM_PER_S = 6;
/** Tapes differ by so much of what the table says. */
const TABLE_SHARE = 0.25;

/** What a pass of the passport sequence tells, a channel each. */
export function passportOf({ pass, source }: Recorded, channels: Machine["channels"]): PassportChannel[] {
  return channelNames(channels).map((channel, c) => {
    const own = at(pass, c);
    const sent = source ? at(source, c) : null;
    const level = (tone: number): Known | null => {
      const came = toneAt(own, tone);
      const went = sent ? toneAt(sent, tone) : { db: 0, uncertaintyDb: 0 };
      if (!came || !went) return null;
      return {
        value: came.db - went.db,
        uncertainty: Math.hypot(LEVEL_DB, came.uncertaintyDb, went.uncertaintyDb),
      };
    };
    const [zero, middle, top, treble] = [0, 1, 2, 3].map(level);
    const stairs = own.find((one) => one.kind === "staircase");
    const silence = own.find((one) => one.kind === "silence");
    const last = own.findLast((one) => one.kind === "sine");
    const zeroCame = toneAt(own, 0);
    const mol = stairs?.kind === "staircase" ? stairs.molDb : null;
    const loudest = stairs?.kind === "staircase" ? stairs.steps.at(-1) : undefined;
    return {
      channel,
      sensitivity: zero,
      treble: less(treble, middle),
      top: less(top, middle),
      middle,
      mol: mol === null ? null : { value: mol, uncertainty: MOL_DB },
      molAbove: mol === null && loudest ? loudest.sentDbfs - ZERO_DBFS : null,
      noise:
        silence?.kind === "silence" && silence.noise && zeroCame
          ? { value: silence.noise.aDbfs - (ZERO_DBFS + zeroCame.db), uncertainty: NOISE_DB }
          : null,
      dropOuts: last?.kind === "sine" ? (last.dropOuts ?? null) : null,
    };
  });
}

const at = ({ segments }: ReturnedPass, c: number): ReturnedChannel[] =>
  segments.flatMap((one) => heardOn(one.channels, c) ?? []);

/** The first, second … tone of a pass. */
function toneAt(own: readonly ReturnedChannel[], place: number) {
  const tone = own.filter((one) => one.kind === "sine").at(place);
  return tone?.kind === "sine" && tone.levelDb !== null
    ? { db: tone.levelDb, uncertaintyDb: tone.uncertaintyDb }
    : null;
}

const less = (one: Known | null, other: Known | null): Known | null =>
  one && other
    ? { value: one.value - other.value, uncertainty: Math.hypot(one.uncertainty, other.uncertainty) }
    : null;

/**
 * How much more bias a tape wants than it gets, dB, from how its top comes back re the middle: where the bias table of
 * an ordinary tape says the same. Null where the table does not reach, or at another than cassette speed.
 */
export function biasWanted(top: Known, speedCmPerS: number): Known | null {
  if (speedCmPerS > CASSETTE_CM_PER_S) return null;
  const { biasDb, sensitivityDb } = BIAS_TABLE;
  const rows = sensitivityDb.map(({ db }) => db);
  const [middle, highest] = [rows[0], rows[rows.length - 1]];
  // falling from 4 dB too little on; below that treble falls again
  const points = biasDb.flatMap((bias, i) => (bias >= -4 ? [{ bias, flat: highest[i] - middle[i] }] : []));
  for (let i = 1; i < points.length; i++) {
    const [from, to] = [points[i - 1], points[i]];
    if (top.value > from.flat || top.value < to.flat) continue;
    const share = (top.value - from.flat) / (to.flat - from.flat);
    const stands = from.bias + share * (to.bias - from.bias);
    const perDb = Math.abs((to.bias - from.bias) / (to.flat - from.flat));
    return {
      value: -stands,
      uncertainty: Math.hypot(0.2, TABLE_SHARE * Math.abs(stands), perDb * top.uncertainty),
    };
  }
  return null;
}

/** Drop-outs of a tape put together: how many a minute, of each channel and in both at once. */
export interface DropOutRates {
  perMinute: Array<{ channel: string; perMinute: number }>;
  bothPerMinute: number;
  /** By depth and length, of all channels. */
  table: Array<{ depth: string; counts: number[] }>;
}

export const LENGTHS: ReadonlyArray<{ says: string; upTo: number }> = [
  { says: "under 10 ms", upTo: 0.01 },
  { says: "10 to 50 ms", upTo: 0.05 },
  { says: "over 50 ms", upTo: Infinity },
];
const DEPTHS: ReadonlyArray<{ says: string; upTo: number }> = [
  { says: "6 to 10 dB", upTo: 10 },
  { says: "10 to 20 dB", upTo: 20 },
  { says: "over 20 dB", upTo: Infinity },
];

/** @returns null where no channel was heard long enough */
export function dropOutRates(channels: readonly PassportChannel[]): DropOutRates | null {
  const heard = channels.flatMap(({ channel, dropOuts }) => (dropOuts ? [{ channel, ...dropOuts }] : []));
  if (heard.length === 0 || heard.some(({ seconds }) => seconds <= 0)) return null;
  const rate = (count: number, seconds: number) => (60 * count) / seconds;
  const all = heard.flatMap(({ events }) => events);
  const inBand = (value: number, bands: typeof LENGTHS) => bands.findIndex(({ upTo }) => value < upTo);
  return {
    perMinute: heard.map(({ channel, events, seconds }) => ({
      channel,
      perMinute: rate(events.length, seconds),
    })),
    bothPerMinute: heard.length < 2 ? 0 : rate(together(heard[0].events, heard[1].events), heard[0].seconds),
    table: DEPTHS.map(({ says }, d) => ({
      depth: says,
      counts: LENGTHS.map(
        (_, l) =>
          all.filter(
            ({ depthDb, seconds }) => inBand(depthDb, DEPTHS) === d && inBand(seconds, LENGTHS) === l,
          ).length,
      ),
    })),
  };
}

/** The same place of a tape, played twice. */
const SAME_PLACE_SECONDS = 0.03;
const FEWEST_TOLD = 3;

/**
 * Whose the flicker is, from two goes at the same stretch of tape: what comes back at the same places is the tape's own,
 * what comes elsewhere is the machine's. Null where there are too few to tell.
 */
export function whoseFlicker(
  once: readonly DropOut[],
  again: readonly DropOut[],
): { whose: "the tape's" | "the machine's" | "both"; same: number; of: number } | null {
  const of = Math.max(once.length, again.length);
  if (of < FEWEST_TOLD) return null;
  const same = once.filter((a) =>
    again.some((b) => Math.abs(a.atSeconds - b.atSeconds) < SAME_PLACE_SECONDS),
  ).length;
  const share = same / of;
  return { whose: share > 0.7 ? "the tape's" : share < 0.3 ? "the machine's" : "both", same, of };
}
