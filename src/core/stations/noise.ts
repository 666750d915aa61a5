import type { HumLine } from "@/core/measure/hum";
import { FAINT_TONES_HZ } from "@/core/measure/quiet";
import type { ToneInNoise } from "@/core/measure/tone-in-noise";
import type { Circumstances } from "@/core/records/reading";
import { recordsTape } from "@/core/records/machine";
import { PRESETS } from "@/core/signals/presets";
import { nothingAdvised } from "./advised";
import { MAINS } from "./cautions";
import { channelNames } from "./channels";
import { erasedHere, NOISE_UNCERTAINTY_DB, type ErasedHere } from "./erased";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { recordedAt } from "./recorded";
import type { MeasuringStation } from "./station";
import { nothingToLog, unlessLacking } from "./station-readings";

const quantities = {
  "noise.a": {
    name: "Noise re 0 level, A-weighted",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.flat": {
    name: "Noise re 0 level, 20 Hz to 20 kHz",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.itu468": {
    name: "Noise re 0 level, 468 quasi-peak",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.machine": {
    name: "Noise without a tape re 0 level, A-weighted",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.bulk": {
    name: "Noise of a bulk-erased tape re 0 level, A-weighted",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.crosstalkHigh": {
    name: "Crosstalk at 10 kHz",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.otherSide": {
    name: "Crosstalk of the other direction at 1 kHz",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.otherSideHigh": {
    name: "Crosstalk of the other direction at 10 kHz",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.crosstalk": { name: "Crosstalk at 1 kHz", unit: "dB", decimals: 1, signed: true, scale: [-80, -20] },
} as const;
export type NoiseQuantity = keyof typeof quantities;

const SEQUENCE = PRESETS.find(({ id }) => id === "erase-and-noise")!;

/** Noise and crosstalk of each channel of the last pass. */
export const noiseNow = (bench: OnTheBench): ErasedHere =>
  erasedHere(bench, (channels) =>
    channels.some(({ noise: heard }) => heard !== null)
      ? null
      : "Neither the silence nor the tones at 0 were heard long enough.",
  );

/** Noise of the machine alone or of a bulk-erased tape, re what comes back at 0, and why it cannot be logged. */
export interface QuietNow {
  channels: Array<{
    channel: string;
    aDb: number;
    flatDb: number;
    uncertaintyDb: number;
    /** Mains lines, re what comes back at 0. */
    hum: HumLine[];
    /** What comes across of each tone of the other direction, re that tone; at most that where noise hides it. */
    across: Array<{ frequencyHz: number; db: number; hidden: boolean; uncertaintyDb: number }>;
  }>;
  lacks: string | null;
}

export function quietNow(bench: OnTheBench): QuietNow {
  const nothing = (lacks: string): QuietNow => ({ channels: [], lacks });
  const quiet = bench.heard?.quiet ?? null;
  const { channels } = noiseNow(bench);
  const told = channels.flatMap(({ channel, zeroDbfs }) =>
    zeroDbfs === null ? [] : [{ channel, zeroDbfs }],
  );
  const kept = bench.heard?.zeroDbfs ?? [];
  const zeros =
    told.length > 0
      ? told
      : channelNames(bench.here.machine.channels).flatMap((channel, c) =>
          c < kept.length ? [{ channel, zeroDbfs: kept[c] }] : [],
        );
  if (zeros.length === 0)
    return nothing(
      "Record the erase sequence once first: its tone at 0 tells what this noise is held against.",
    );
  if (!quiet) return nothing("Nothing quiet was heard yet: no tone, for five seconds.");
  const own = bench.heard?.ownNoiseDbfs ?? null;
  const quietChannels = zeros.map(({ channel, zeroDbfs }, c) => {
    const { noise: heard, hum, faint } = quiet.channels[Math.min(c, quiet.channels.length - 1)];
    // both as the level of a sine as strong
    const aboveOwn = own === null ? Infinity : heard.flatDbfs - (own + SINE_OVER_RMS_DB);
    const cards = aboveOwn > 0 ? -10 * Math.log10(1 - 10 ** (-aboveOwn / 10)) : Infinity;
    return {
      channel,
      aDb: heard.aDbfs - zeroDbfs,
      flatDb: heard.flatDbfs - zeroDbfs,
      uncertaintyDb: Math.hypot(NOISE_UNCERTAINTY_DB, Math.min(MOST_CARDS_DB, cards)),
      hum: hum.map(({ frequencyHz, levelDb }) => ({ frequencyHz, levelDb: levelDb - zeroDbfs })),
      across: FAINT_TONES_HZ.map((frequencyHz, i) => acrossFrom(frequencyHz, faint[i], zeroDbfs)),
    };
  });
  const isCards = quietChannels.some(({ uncertaintyDb }) => uncertaintyDb > CARDS_DB);
  return {
    channels: quietChannels,
    lacks: isCards
      ? "This is the sound card's own noise, as its loop-back measured it: raise the level between the machine and the card."
      : quietChannels.some(({ flatDb }) => flatDb > LOUD_DB)
        ? "That is no silence: something plays."
        : quiet.steady || bench.circumstances.noiseOf === "other side"
          ? null
          : "It does not hold still: programme, a click or a loose contact is in it.",
  };
}

/** How far one of the tones recorded on the other side comes across. */
function acrossFrom(frequencyHz: number, { levelDbfs, toneDbfs }: ToneInNoise, zeroDbfs: number) {
  const recorded = frequencyHz > TONE_HZ ? RECORDED_HIGH_DB : NOISE_UNCERTAINTY_DB;
  return {
    frequencyHz,
    db: (toneDbfs ?? levelDbfs) - zeroDbfs - OTHER_SIDE_DB,
    hidden: toneDbfs === null,
    uncertaintyDb: Math.hypot(recorded, ACROSS_NOISE_DB),
  };
}
/** Each of both tones is sent so far re 0: half of what the two swing together. */
const OTHER_SIDE_DB = -10 - 20 * Math.log10(2);
/** How well a recorder records 10 kHz at that level, and what noise leaves unsure of a tone that stands out of it. */
const RECORDED_HIGH_DB = 1.5;
const ACROSS_NOISE_DB = 0.5;
const SINE_OVER_RMS_DB = 3.01;
const CARDS_DB = 3;
const MOST_CARDS_DB = 20;
const LOUD_DB = -25;

export const NOISE_OF = {
  machine: { quantity: "noise.machine", says: "no tape in it" },
  bulk: { quantity: "noise.bulk", says: "a bulk-erased tape" },
  "other side": { quantity: "noise.otherSide", says: "the other direction's tones" },
} as const satisfies Record<NoiseOf, { quantity: NoiseQuantity; says: string }>;
type NoiseOf = NonNullable<Circumstances["noiseOf"]>;

export const noise: MeasuringStation<"noise", NoiseQuantity> = {
  id: "noise",
  kind: "measure",
  name: "Noise",
  group: "record",
  quantities,
  onRoute: recordsTape,
  deciding: () => ["noise.a"],
  // what is good depends on the tape; a machine's own papers say
  limitOf: () => null,
  ownLimits: [],
  corridorOf: () => null,
  apartBy: ["speed", "channel", "recordingOn"],
  circumstances: ["recordingOn"],
  adjusters: [{ kind: "work", says: "work, against noise", actsOn: [] }],
  hears: {
    what: "sequence",
    flutter: false,
    role: null,
    sequence: SEQUENCE.id,
    follows: null,
    steady: null,
    quiet: ({ noiseOf }) => (noiseOf === "other side" ? "faint tones" : "silence"),
  },
  tapeLacks: () => null,
  upsets: ["noise", "azimuth", "level", "response"],
  readings: (bench) => {
    const { noiseOf } = bench.circumstances;
    if (noiseOf) {
      const { channels, lacks } = quietNow(bench);
      const { quantity, says } = NOISE_OF[noiseOf];
      return unlessLacking(lacks, (context) =>
        readingsOfMoment(
          noise,
          { ...context, nominalHz: TONE_HZ },
          { seconds: 8, method: `noise, ${says}, re what comes back at 0` },
          noiseOf === "other side"
            ? channels.flatMap(acrossFigures)
            : channels.map(({ channel, aDb, uncertaintyDb }) => ({
                quantity,
                channel,
                value: aDb,
                uncertainty: uncertaintyDb,
              })),
        ),
      );
    }
    const { channels, lacks, agoSeconds } = noiseNow(bench);
    if (channels.length === 0) return nothingToLog(lacks ?? "");
    const readings = (context: LogContext) =>
      readingsOfMoment(
        noise,
        { ...context, nominalHz: TONE_HZ, at: recordedAt(context.at, agoSeconds) },
        { seconds: 20, method: "recorded silence off the tape, re what comes back at 0" },
        channels.flatMap(
          ({
            channel,
            noise: heard,
            crosstalkDb,
            crosstalkUncertaintyDb,
            crosstalkHighDb,
            crosstalkHighUncertaintyDb,
          }): Array<Figure<NoiseQuantity> | null> => {
            const level = (quantity: NoiseQuantity, value: number | undefined) =>
              value === undefined ? null : { quantity, channel, value, uncertainty: NOISE_UNCERTAINTY_DB };
            return [
              level("noise.a", heard?.aDb),
              level("noise.flat", heard?.flatDb),
              level("noise.itu468", heard?.itu468Db),
              crosstalkDb === null
                ? null
                : {
                    quantity: "noise.crosstalk",
                    channel,
                    value: crosstalkDb,
                    uncertainty: crosstalkUncertaintyDb,
                  },
              crosstalkHighDb === null
                ? null
                : {
                    quantity: "noise.crosstalkHigh",
                    channel,
                    value: crosstalkHighDb,
                    uncertainty: crosstalkHighUncertaintyDb,
                    nominalHz: HIGH_TONE_HZ,
                  },
            ];
          },
        ),
      );
    return unlessLacking(lacks, readings);
  },
  advise: (bench) => {
    const { channels, lacks } = noiseNow(bench);
    const worst = channels.flatMap(({ noise: heard }) => heard?.aDb ?? []).toSorted((a, b) => b - a)[0];
    return nothingAdvised({
      quantity: "noise.a",
      value: worst ?? null,
      uncertainty: NOISE_UNCERTAINTY_DB,
      settled: lacks === null,
    });
  },
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn: "Noise has no screw: magnetised heads, a noisy stage, hum and the tape make it.",
  setUp: [
    "Record the erase sequence on this tape: its silence tells noise, its tones on one side what comes across.",
    "Noise reduction off, input closed at the source's end.",
    "Three heads: listen to the tape while it records. Two heads: rewind and play.",
    "Then, at the same levels, without a tape, and with a bulk-erased one playing: say which below.",
    "Tracks of the other direction: record their tones on the other side, turn over, and play a blank place of this one.",
  ],
  checks: [],
  caution: MAINS,
};
export const TONE_HZ = 1000;
export const HIGH_TONE_HZ = 10_000;

const acrossFigures = ({ channel, across }: QuietNow["channels"][number]): Array<Figure<NoiseQuantity>> =>
  across.map(({ frequencyHz, db, hidden, uncertaintyDb }) => ({
    quantity: frequencyHz > TONE_HZ ? "noise.otherSideHigh" : "noise.otherSide",
    channel,
    nominalHz: frequencyHz,
    value: db,
    uncertainty: uncertaintyDb,
    method: `tones on the other side, by narrow filter${hidden ? "; at most that: noise hides what comes across" : ""}`,
  }));
