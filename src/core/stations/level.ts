import { isDead, isSilent } from "@/core/playback/dead-channel";
import { levelTone, type ChannelLevel, type PlaybackLevel } from "@/core/playback/playback-level";
import type { PlaybackNumbers } from "@/core/playback/playback-numbers";
import type { Adjuster, Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { adviseByNumber } from "./advise-by-number";
import { nothingAdvised } from "./advised";
import { MAINS } from "./cautions";
import { ownChannel, shiftedBack } from "./channels";
import { controlLimit, controlNow, controlQuantities, controlReadings } from "./controls";
import { heardFrom } from "./heard-from";
import { readingsOfMoment, type LogContext } from "./log-context";
import type { MeasuringStation } from "./station";
import { nothingToLog, unlessLacking } from "./station-readings";

const quantities = {
  "level.error": { name: "Playback level error", unit: "dB", decimals: 2, signed: true },
  "level.balance": { name: "Channel balance", unit: "dB", decimals: 2, signed: true },
  ...controlQuantities,
  "level.meter": { name: "Error of the machine's meter", unit: "dB", decimals: 2, signed: true },
} as const;

const USUAL_LIMIT_DB = 1;
const METHOD = "level of the reference fluxivity band, corrections taken away";
const METER_METHOD = "the machine's meter re its 0, less the measured level error";

export const levelLimit = ({ limits, toleranceClass }: Machine): number | null =>
  limits.balanceDb ?? TOLERANCE_CLASSES[toleranceClass].balanceDb;

/** Level of each channel and their balance. */
export const levelReadings = (
  { channels, balanceDb, balanceUncertaintyDb, frequencyHz }: PlaybackLevel,
  seconds: number,
  context: LogContext,
): Reading[] =>
  readingsOfMoment(level, { ...context, nominalHz: frequencyHz }, { seconds, method: METHOD }, [
    ...channels.map(
      ({ channel, errorDb, uncertaintyDb }) =>
        errorDb !== null && {
          quantity: "level.error" as const,
          value: errorDb,
          uncertainty: uncertaintyDb,
          channel: channels.length === 1 ? "both" : channel,
        },
    ),
    balanceDb !== null && { quantity: "level.balance", value: balanceDb, uncertainty: balanceUncertaintyDb },
  ]);

/** What the machine's own meter shows, dB re its 0, less what is measured. */
export const meterReadings = (
  meter: { channel: string; errorDb: number; uncertaintyDb: number },
  context: LogContext,
): Reading[] =>
  readingsOfMoment(level, { ...context, channel: meter.channel }, { seconds: 0, method: METER_METHOD }, [
    { quantity: "level.meter", value: meter.errorDb, uncertainty: meter.uncertaintyDb },
  ]);

const CLIPPED =
  "It clips: its level is higher than what arrives here. Lower the input level and play it again.";

/** Why levels are none; null where they are. */
export function notLevels(channels: readonly ChannelLevel[]): string | null {
  const silent = channels.find(isSilent);
  if (silent) return `${silent.channel}: silent; nothing arrives on this channel.`;
  return channels.some(({ clipped }) => clipped) ? CLIPPED : null;
}

/** Why no trimmer can be told to be turned by them. */
function notToTurn({ channels }: PlaybackLevel): { headline: string; reason: string } | null {
  const reason = notLevels(channels);
  if (reason) return { headline: "look at the input", reason };
  const weak = channels.find((_, c) => isDead(channels, c));
  return weak
    ? {
        headline: "no trimmer's fault",
        reason: `${weak.channel}: far weaker than the other channel. A cable, a contact, the head or its amplifier: find that first.`,
      }
    : null;
}

type Heard = NonNullable<PlaybackNumbers["level"]>;

function standing({ now }: PlaybackNumbers, { tone, numbers }: Heard, adjuster: Adjuster) {
  const own: ChannelLevel | undefined = ownChannel(numbers.channels, adjuster.channel);
  const value = own?.errorDb ?? numbers.balanceDb;
  if (!own || value === null) return null;
  const { playing } = now;
  const plays = playing?.index === tone.index;
  const settled = tone.fresh && (!plays || playing.settled);
  const uncertainty = own.errorDb === null ? numbers.balanceUncertaintyDb : own.uncertaintyDb;
  return { value, uncertainty, settled, from: heardFrom(playing, plays) };
}

export const level: MeasuringStation<"level", keyof typeof quantities> = {
  id: "level",
  kind: "measure",
  name: "Level",
  group: "playback",
  onRoute: () => true,
  quantities,
  deciding: ({ channels }) => [
    "level.error",
    ...(channels === 1 ? [] : (["level.balance"] as const)),
    // a control counts once it was tried
    "level.crackles",
    "level.dropOuts",
    "level.tracking",
  ],
  limitOf: (machine, quantity) => {
    switch (quantity) {
      case "level.error":
      case "level.balance":
        return levelLimit(machine);
      case "level.crackles":
      case "level.dropOuts":
      case "level.tracking":
        return controlLimit(quantity, machine);
      case "level.meter":
        return null;
    }
  },
  ownLimits: [{ key: "balanceDb", label: "Own level limit ±, dB", most: 20 }],
  corridorOf: () => null,
  apartBy: ["speed", "side", "channel", "control"],
  circumstances: ["side", "control"],
  adjusters: [{ kind: "turn", says: "turned, sets playback level", actsOn: ["channel", "side"] }],
  hears: {
    what: "reference tape",
    flutter: false,
    role: "level",
    sequence: null,
    follows: null,
    steady: null,
  },
  tapeLacks: ({ tape }) => {
    const tones = tape.bands.filter(({ kind }) => kind === "tone").map((band) => ({ band }));
    if (levelTone(tones, tape) === null) return "has no tone to read a level from";
    return tape.fluxivityNwbPerM === undefined
      ? "has no reference fluxivity written down: only the balance can be judged"
      : null;
  },
  upsets: ["level", "response", "record-level", "reduction", "settings"],
  readings: ({ numbers, ...bench }) => {
    if (bench.circumstances.control !== undefined) {
      const { test, lacks } = controlNow(bench);
      if (test === null) return nothingToLog(lacks ?? "Nothing was worked yet.");
      return unlessLacking(lacks, (context) => controlReadings(level, test, bench.here.machine, context));
    }
    const heard = numbers?.level;
    if (!heard) return nothingToLog("The reference fluxivity band was not heard yet: play it.");
    const { tone } = heard;
    const lacks = tone.fresh ? notLevels(heard.numbers.channels) : null;
    if (lacks) return nothingToLog(lacks);
    const { playing } = numbers.now;
    const readings = (context: LogContext) => levelReadings(heard.numbers, tone.pair.seconds, context);
    return {
      toLog: (context) =>
        tone.fresh
          ? readings(context)
          : "Something was turned since: play the reference fluxivity band again.",
      afterTurn: (context) => (tone.fresh ? readings(context) : null),
      beforeTurn: (context) => {
        const before = playing?.index === tone.index ? playing.before : null;
        if (!before || !playing) return tone.fresh ? readings(context) : null;
        return shiftedBack(readings(context), playing.levelsDbfs, before.levelsDbfs);
      },
    };
  },
  advise: (bench, chosen) => {
    // a control that is worked is no adjuster
    if (bench.circumstances.control !== undefined)
      return nothingAdvised({ quantity: "level.error", value: null, uncertainty: 0, settled: false });
    const { numbers } = bench;
    const heard = numbers?.level ?? null;
    const known = heard?.numbers.channels.every(({ errorDb }) => errorDb !== null) ?? true;
    return adviseByNumber(
      bench,
      {
        station: level,
        quantity: known ? "level.error" : "level.balance",
        ofBothChannels: !known,
        limit: levelLimit(bench.here.machine) ?? USUAL_LIMIT_DB,
        live: (adjuster) => (numbers && heard ? standing(numbers, heard, adjuster) : null),
        hearFirst: "The reference fluxivity band comes first.",
        held: () => heard && notToTurn(heard.numbers),
      },
      chosen,
    );
  },
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn: "This machine has no playback level trimmer written down.",
  setUp: ["Play the reference fluxivity band. Output level controls at their mark."],
  checks: [],
  caution: MAINS,
};
