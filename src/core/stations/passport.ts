import type { ChannelDropOuts } from "@/core/measure/drop-out-rates";
import type { DropOut } from "@/core/measure/drop-outs";
import type { Machine } from "@/core/records/machine";
import { ZERO_DBFS, type ReturnedChannel, type ReturnedPass } from "@/core/returned/returned";
import { HIGHEST_TABLED_HZ, sensitivityDb } from "@/core/guidance/bias-curves";
import { asAtCassetteSpeed } from "@/core/standards/bias-curves";
import { PRESETS } from "@/core/signals/presets";
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
/** Tapes differ by so much of what the table says. */
const TABLE_SHARE = 0.25;

/** Drop-outs of the channels in which they were counted. */
export const dropOutsOf = (channels: readonly PassportChannel[]): ChannelDropOuts[] =>
  channels.flatMap(({ channel, dropOuts }) => (dropOuts ? [{ channel, ...dropOuts }] : []));

/** What a pass of the passport sequence tells, a channel each. */
export function passportOf({ pass, source }: Recorded, channels: Machine["channels"]): PassportChannel[] {
  return channelNames(channels).map((channel, c) => {
    const own = at(pass, c);
    const level = (tone: PassportTone): Known | null => {
      const came = toneAt(pass, c, tone);
      const went = source ? toneAt(source, c, tone) : { db: 0, uncertaintyDb: 0 };
      if (!came || !went) return null;
      return {
        value: came.db - went.db,
        uncertainty: Math.hypot(LEVEL_DB, came.uncertaintyDb, went.uncertaintyDb),
      };
    };
    const [zero, middle, top, treble] = (["zero", "middle", "top", "treble"] as const).map(level);
    const stairs = own.find((one) => one.kind === "staircase");
    const silence = own.find((one) => one.kind === "silence");
    const last = sineAt(pass, c, "dropOuts");
    const zeroCame = toneAt(pass, c, "zero");
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
      dropOuts: last?.dropOuts ?? null,
    };
  });
}

const at = ({ segments }: ReturnedPass, c: number): ReturnedChannel[] =>
  segments.flatMap((one) => heardOn(one.channels, c) ?? []);

/** The tones of the passport sequence, by what they were sent as. */
const TONES = {
  zero: { frequencyHz: 400, levelDb: -12 },
  middle: { frequencyHz: 400, levelDb: -32 },
  top: { frequencyHz: 15_000, levelDb: -32 },
  treble: { frequencyHz: 10_000, levelDb: -32 },
  dropOuts: { frequencyHz: 3150, levelDb: -16 },
} as const;
type PassportTone = keyof typeof TONES;

const SEQUENCE = PRESETS.find(({ id }) => id === "passport")!;
/** A tone by its frequency and level as sent, whatever else of the pass was lost. */
const placeOf = ({ frequencyHz, levelDb }: (typeof TONES)[PassportTone]): number =>
  SEQUENCE.segments.findIndex(
    (one) => one.kind === "sine" && one.frequencyHz === frequencyHz && one.levelDb === levelDb,
  );

function sineAt({ segments }: ReturnedPass, c: number, tone: PassportTone) {
  const segment = segments.find(({ index }) => index === placeOf(TONES[tone]));
  const came = segment && heardOn(segment.channels, c);
  return came?.kind === "sine" && came.frequencyHz === TONES[tone].frequencyHz ? came : null;
}

function toneAt(pass: ReturnedPass, c: number, tone: PassportTone) {
  const came = sineAt(pass, c, tone);
  return came && came.levelDb !== null ? { db: came.levelDb, uncertaintyDb: came.uncertaintyDb } : null;
}

const less = (one: Known | null, other: Known | null): Known | null =>
  one && other
    ? { value: one.value - other.value, uncertainty: Math.hypot(one.uncertainty, other.uncertainty) }
    : null;

/** Tones 20 dB down whose level re the middle one tells of bias. */
const MIDDLE_HZ = 400;
const HIGH_TONES = { top: 15_000, treble: 10_000 } as const;
/** Below that treble falls again. */
const LEAST_BIAS_DB = -4;
const MOST_BIAS_DB = 4;
const BIAS_STEP_DB = 0.25;

/**
 * How much more bias a tape wants than it gets, dB, from how a high tone comes back re the middle: where the bias table of
 * an ordinary tape says the same. It is told by the highest tone of which the table tells at this speed; null where there
 * is none (9.53 cm/s: its tones lie between those of the table's tape and those that open-reel tapes are told by), and
 * where the table does not reach.
 */
export function biasWanted(
  passport: Pick<PassportChannel, keyof typeof HIGH_TONES>,
  speedCmPerS: number,
): Known | null {
  const asTabled = (hz: number) => asAtCassetteSpeed(hz, speedCmPerS);
  const by = (["top", "treble"] as const).find((tone) => asTabled(HIGH_TONES[tone]) <= HIGHEST_TABLED_HZ);
  const heard = by && passport[by];
  if (!heard) return null;
  const flat = (biasDb: number) =>
    sensitivityDb(biasDb, asTabled(HIGH_TONES[by])) - sensitivityDb(biasDb, asTabled(MIDDLE_HZ));
  for (let bias = LEAST_BIAS_DB; bias < MOST_BIAS_DB; bias += BIAS_STEP_DB) {
    const [before, after] = [flat(bias), flat(bias + BIAS_STEP_DB)];
    if (before <= after || heard.value > before || heard.value < after) continue;
    const perDb = BIAS_STEP_DB / (before - after);
    const stands = bias + perDb * (before - heard.value);
    return {
      value: -stands,
      uncertainty: Math.hypot(0.2, TABLE_SHARE * Math.abs(stands), perDb * heard.uncertainty),
    };
  }
  return null;
}
