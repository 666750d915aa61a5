import type { HeardSchool } from "@/core/guidance/bias-answers";
import type { BiasSchool } from "@/core/records/job";
import type { Reading } from "@/core/records/reading";
import type { BiasHeard } from "@/core/returned/bias-points";
import { tapeDoubt } from "./bias-doubt";
import type { byMeter } from "./bias-meter";
import { heardSchool, schoolOf } from "./bias-school";
import { BIAS_SCREWS, biasNow, biasOf, errorOf, keptSides, type BiasSide } from "./bias-sides";
import { heardOn } from "./channels";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { recordedAt, type Recorded } from "./recorded";
import { nothingToLog, type StationReadings } from "./station-readings";

export const BIAS_QUANTITIES = {
  "bias.error": { name: "Bias error", unit: "dB", decimals: 1, signed: true },
  "bias.flatness": { name: "High tone less middle tone", unit: "dB", decimals: 2, signed: true },
  "bias.third": { name: "Third harmonic re the tone", unit: "dB", decimals: 1, signed: true },
  // what the law of the screw is learned from
  "bias.middle": { name: "Middle tone 20 dB down", unit: "dB", decimals: 2, signed: true, unprinted: true },
  "bias.high": { name: "High tone 20 dB down", unit: "dB", decimals: 2, signed: true, unprinted: true },
} as const;
export type BiasQuantity = keyof typeof BIAS_QUANTITIES;

/** Whose readings they are. */
const STATION = { id: BIAS_SCREWS.id, quantities: BIAS_QUANTITIES };

const METHODS: Record<HeardSchool, string> = {
  "over-bias": "bias re where the high tone has dropped by the tape's figure",
  flatness: "bias re where the high tone comes back as loud as the middle one",
  "third-harmonic": "bias re where the third harmonic is least",
};
const SAME_MOMENT_MS = 3000;
const LEVEL_UNCERTAINTY_DB = 0.06;
const THIRD_UNCERTAINTY_DB = 0.5;

/** What is logged of a channel: where it stands by the chosen school, unless a meter tells that, and what was heard. */
function figuresOf(
  school: BiasSchool,
  side: BiasSide,
  heard: BiasHeard,
  { fresh, levelDb }: { fresh: boolean; levelDb: number },
): Array<Figure<BiasQuantity>> {
  const error = fresh && school !== "makers-figure" ? errorOf(school, side) : null;
  const { channel } = side;
  const level = { channel, uncertainty: levelDb };
  const figures: Array<Figure<BiasQuantity> | null> = [
    error && {
      quantity: "bias.error",
      channel,
      value: error.errorDb,
      uncertainty: error.uncertaintyDb,
      method: METHODS[heardSchool(school)],
    },
    {
      ...level,
      quantity: "bias.flatness",
      value: heard.highDb - heard.middleDb,
      uncertainty: Math.SQRT2 * levelDb,
      nominalHz: heard.highHz,
    },
    heard.thirdDb === null
      ? null
      : {
          quantity: "bias.third",
          channel,
          value: heard.thirdDb,
          uncertainty: THIRD_UNCERTAINTY_DB,
          nominalHz: heard.middleHz,
        },
    { ...level, quantity: "bias.middle", value: heard.middleDb, nominalHz: heard.middleHz },
    { ...level, quantity: "bias.high", value: heard.highDb, nominalHz: heard.highHz },
  ];
  return figures.filter((figure) => figure !== null);
}

/** What a pass of the sequence gives to log. */
function passReadings(bench: OnTheBench, one: Recorded, isLast: boolean, context: LogContext): Reading[] {
  const { machine, job } = bench.here;
  return readingsOfMoment(
    STATION,
    {
      ...context,
      at: recordedAt(context.at, one.agoSeconds),
      // what was recorded before the last turn is of how it stood then
      phase: isLast ? context.phase : "working",
    },
    { seconds: 4, method: "level of tones of the bias sequence, came back less sent" },
    keptSides(bench).flatMap((side, c) => {
      const heard = heardOn(biasOf(one, machine.channels), c);
      const how = { fresh: one.fresh, levelDb: LEVEL_UNCERTAINTY_DB };
      return heard ? figuresOf(schoolOf(job), side, heard, how) : [];
    }),
  );
}

/** What both tones give to log that play steadily. */
function toneReadings(
  bench: OnTheBench,
  heard: readonly BiasHeard[],
  how: { fresh: boolean; levelDb: number },
  context: LogContext,
): Reading[] {
  return readingsOfMoment(
    STATION,
    context,
    { seconds: 2, method: "level of both bias tones off the tape, less what went in" },
    keptSides(bench).flatMap((side, c) => {
      const own = heardOn(heard, c);
      return own ? figuresOf(schoolOf(bench.here.job), side, own, how) : [];
    }),
  );
}

/** A reading that was typed off a meter, re the maker's figure. */
export const meterReading = (
  { errorDb, uncertaintyDb, method }: ReturnType<typeof byMeter>,
  channel: string,
  context: LogContext,
): Reading[] =>
  readingsOfMoment(STATION, { ...context, channel }, { seconds: 0, method }, [
    { quantity: "bias.error", value: errorDb, uncertainty: uncertaintyDb },
  ]);

/** What passes and tones that were heard give to log. */
export function biasReadings(bench: OnTheBench): StationReadings {
  const { recorded, tones, lacks } = biasNow(bench);
  const last = recorded.at(-1);
  if (!last && !tones) return nothingToLog(lacks ?? "");
  const notLogged = (one: Recorded, context: LogContext) => {
    const at = Date.parse(recordedAt(context.at, one.agoSeconds));
    return !bench.here.readings.some(
      (reading) => reading.station === "bias" && Math.abs(Date.parse(reading.at) - at) < SAME_MOMENT_MS,
    );
  };
  const levelDb = Math.max(LEVEL_UNCERTAINTY_DB, tones?.uncertaintyDb ?? 0);
  const now = (context: LogContext) =>
    tones
      ? toneReadings(bench, tones.heard, { fresh: true, levelDb }, context)
      : passReadings(bench, last!, true, context);
  const passes = (context: LogContext) =>
    recorded
      .filter((one) => (!tones && one === last) || notLogged(one, context))
      .flatMap((one) => passReadings(bench, one, !tones && one === last, context));
  return {
    toLog: (context) =>
      lacks ?? tapeDoubt(bench, keptSides(bench)) ?? [...passes(context), ...(tones ? now(context) : [])],
    afterTurn: (context) => (lacks === null ? now(context) : null),
    beforeTurn: (context) =>
      tones?.before
        ? toneReadings(bench, tones.before, { fresh: false, levelDb }, context)
        : lacks === null
          ? now(context)
          : null,
  };
}
