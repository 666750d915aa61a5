import type { BiasSchool } from "@/core/records/job";
import { HEARD_SCHOOLS, peakToHear, type HeardSchool } from "@/core/guidance/bias-answers";
import { placesHeard } from "@/core/guidance/bias-law";
import { turnsTo, type BiasKnown } from "@/core/guidance/bias-screw";
import { directionInWords, turnInWords, type TurnAdvice } from "@/core/guidance/turn-guidance";
import { inForce } from "@/core/records/job-records";
import { recordsTape, type Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import type { BiasHeard } from "@/core/returned/bias-points";
import { fixed } from "@/core/text/number-text";
import { nothingAdvised, type Advised } from "./advised";
import { adviseByNumber } from "./advise-by-number";
import { tapeDoubt } from "./bias-doubt";
import { byMeter, typedLast } from "./bias-meter";
import {
  BIAS_SCREWS,
  BIAS_SEQUENCE,
  BIAS_TONES,
  biasNow,
  biasOf,
  biasScrews,
  biasSides,
  errorOf,
  keptSides,
  type BiasSide,
} from "./bias-sides";
import { MAINS } from "./cautions";
import { heardOn } from "./channels";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { recordedAt, type Recorded } from "./recorded";
import type { MeasuringStation } from "./station";
import { nothingToLog } from "./station-readings";

const quantities = {
  "bias.error": { name: "Bias error", unit: "dB", decimals: 1, signed: true },
  "bias.flatness": { name: "High tone less middle tone", unit: "dB", decimals: 2, signed: true },
  "bias.third": { name: "Third harmonic re the tone", unit: "dB", decimals: 1, signed: true },
  // what the law of the screw is learned from
  "bias.middle": { name: "Middle tone 20 dB down", unit: "dB", decimals: 2, signed: true, unprinted: true },
  "bias.high": { name: "High tone 20 dB down", unit: "dB", decimals: 2, signed: true, unprinted: true },
} as const;
type BiasQuantity = keyof typeof quantities;

const METHODS: Record<HeardSchool, string> = {
  "over-bias": "bias re where the high tone has dropped by the tape's figure",
  flatness: "bias re where the high tone comes back as loud as the middle one",
  "third-harmonic": "bias re where the third harmonic is least",
};
const SAME_MOMENT_MS = 3000;
const TRIAL_TURNS = 0.125;
/** Nearer than this share of the limit there is nothing to gain by turning. */
const GOOD_ENOUGH_SHARE = 0.3;
const LEAST_SHARE = 0.1;
/** Known to this share of the limit, it passes where it is left near enough. */
const SURE_SHARE = 0.6;
const LEVEL_UNCERTAINTY_DB = 0.06;
const THIRD_UNCERTAINTY_DB = 0.5;

/** The school that a job is set by. */
export const schoolOf = ({ biasSchool = "flatness" }: { biasSchool?: BiasSchool }): BiasSchool => biasSchool;

export const biasLimitOf = ({ limits, toleranceClass }: Machine): number =>
  limits.biasDb ?? TOLERANCE_CLASSES[toleranceClass].biasDb;

/** The school that is heard: where the maker's figure is chosen, flatness beside it. */
export const heardSchool = (school: BiasSchool): HeardSchool =>
  HEARD_SCHOOLS.find((one) => one === school) ?? "flatness";

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
    bias,
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
    bias,
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
  readingsOfMoment(bias, { ...context, channel }, { seconds: 0, method }, [
    { quantity: "bias.error", value: errorDb, uncertainty: uncertaintyDb },
  ]);

const isContent = (error: ReturnType<typeof errorOf>, limit: number): boolean =>
  error !== null &&
  error.uncertaintyDb < limit &&
  Math.abs(error.errorDb) <= goodEnoughDb(error.uncertaintyDb, limit);

/** So near that it passes with its ± counted in, where it can; never nearer than makes sense to turn. */
const goodEnoughDb = (uncertaintyDb: number, limit: number): number =>
  Math.min(GOOD_ENOUGH_SHARE * limit, Math.max(LEAST_SHARE * limit, 0.95 * limit - uncertaintyDb));

const isSure = (error: ReturnType<typeof errorOf>, limit: number): boolean =>
  error !== null && error.uncertaintyDb <= SURE_SHARE * limit;

function turnAdvice(turns: number, { law, slackTurns }: BiasKnown): Pick<Advised, "advice" | "headline"> {
  const advice: TurnAdvice = {
    kind: "turn",
    turns,
    effect: {
      perTurn: law.dbPerTurn,
      slackTurns,
      slackKnown: false,
      models: [],
      lastTurn: { turns, change: 0 },
    },
  };
  return { advice, headline: `${directionInWords(turns)}, ${turnInWords(turns)}` };
}

const NO_TRAVEL =
  "Its school would leave it farther on. Look whether it is this type's screw, then at the oscillator: its supply, its coupling capacitor, a worn head.";

/** While the screw turns and its tones are heard: how far yet, and when to stop. */
function whileTurning(
  known: BiasKnown,
  movesAt: number,
  school: HeardSchool,
  error: ReturnType<typeof errorOf>,
  limit: number,
): Pick<Advised, "advice" | "headline" | "reason" | "turnedSoFar"> {
  const answer = known.answers.find((one) => one.school === school)!;
  const yet = answer.turns === null ? null : answer.turns - movesAt;
  const there = error !== null && Math.abs(error.errorDb) <= GOOD_ENOUGH_SHARE * limit;
  const headline =
    yet === null
      ? "cannot be told"
      : there
        ? "stop there"
        : `${directionInWords(yet)}, ${turnInWords(yet)} more`;
  return {
    advice: { kind: "wait" },
    headline,
    reason: "Told by both tones while it turns. Let it stand two seconds, and say that you turned it.",
    turnedSoFar: movesAt - known.nowTurns,
  };
}

const NOT_READ = { value: null, uncertainty: 0, settled: false };

/** By the maker's figure a screw is turned as by any number; what the meter shows is typed. */
function adviseByMeter(bench: OnTheBench, chosenId: string | null): Advised {
  const last = (channel: string | undefined) => typedLast(bench, channel);
  const advised = adviseByNumber(
    bench,
    {
      station: bias,
      quantity: "bias.error",
      limit: biasLimitOf(bench.here.machine),
      live: ({ channel }) => {
        const typed = last(channel);
        return typed
          ? { value: typed.reading.value, uncertainty: typed.reading.uncertainty, settled: typed.fresh }
          : NOT_READ;
      },
      hearFirst: "Type what the meter shows, on the left of each channel.",
    },
    chosenId,
  );
  return advised.advice.kind === "wait"
    ? { ...advised, headline: "read the meter", reason: "Type what it shows now, and log it." }
    : advised;
}

export const bias: MeasuringStation<"bias", BiasQuantity> = {
  id: BIAS_SCREWS.id,
  kind: "measure",
  name: "Bias",
  group: "record",
  quantities,
  onRoute: recordsTape,
  deciding: () => ["bias.error"],
  limitOf: (machine, quantity) => (quantity === "bias.error" ? biasLimitOf(machine) : null),
  ownLimits: [{ key: "biasDb", label: "Own bias limit ±, dB", most: 10 }],
  corridorOf: () => null,
  apartBy: BIAS_SCREWS.apartBy,
  circumstances: ["recordingOn"],
  adjusters: [{ kind: "turn", says: "turned, sets bias", actsOn: ["channel", "tapeType"] }],
  hears: {
    what: "sequence",
    flutter: false,
    role: null,
    sequence: BIAS_SEQUENCE.id,
    follows: [315, 10_000],
    steady: BIAS_TONES.id,
  },
  tapeLacks: () => null,
  upsets: ["bias", "record-level", "record-response", "distortion", "reduction", "settings"],
  readings: (bench) => {
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
  },
  advise: (bench, chosenId): Advised => {
    const { machine, job } = bench.here;
    const { lacks, tones } = biasNow(bench);
    const chosen = schoolOf(job);
    if (chosen === "makers-figure") return adviseByMeter(bench, chosenId);
    const limit = biasLimitOf(machine);
    const all = biasSides(bench);
    const sides = all.flatMap((side) =>
      side.adjuster ? [{ side, adjuster: side.adjuster, error: errorOf(chosen, side) }] : [],
    );
    const adjusters = [...new Set(sides.map(({ adjuster }) => adjuster))];
    const farthest = sides
      .toSorted((a, b) => Math.abs(b.error?.errorDb ?? 0) - Math.abs(a.error?.errorDb ?? 0))
      .at(0);
    // without a choice: what moves, then what is in hand until it is content, then what is farthest off
    const inHand = inForce(bench.here.adjustments).at(-1)?.adjusterId;
    const begun = sides.find(({ adjuster, error }) => adjuster.id === inHand && !isContent(error, limit));
    const moving = sides.find(({ side }) => side.moves);
    const at = sides.find(({ adjuster }) => adjuster.id === chosenId) ?? moving ?? begun ?? farthest;
    const toSet = {
      quantity: "bias.error",
      value: at?.error?.errorDb ?? null,
      uncertainty: at?.error?.uncertaintyDb ?? 0,
      settled: lacks === null,
    };
    if (!at) return nothingAdvised(toSet);
    const said = { adjusters, adjuster: at.adjuster, toSet, target: 0, readElsewhere: null, peak: null };
    const doubt = tapeDoubt(bench, all);
    if (doubt) return { ...said, advice: { kind: "unclear" }, headline: "look at the tape", reason: doubt };
    const { known, movesAt } = at.side;
    if (known && movesAt !== null)
      return { ...said, ...whileTurning(known, movesAt, chosen, at.error, limit) };
    if (tones !== null && lacks !== null)
      return {
        ...said,
        advice: { kind: "wait" },
        headline: at.side.moves ? "say that you turned it" : "let it settle",
        reason: lacks,
      };
    if (at.side.thinking)
      return {
        ...said,
        advice: { kind: "wait" },
        headline: "a moment",
        reason: "What was heard is held against what is known of this screw.",
      };
    if (lacks !== null || !known)
      return { ...said, advice: { kind: "wait" }, headline: "record the sequence", reason: lacks ?? "" };
    const places = placesHeard(known.points);
    const toPeak =
      chosen === "over-bias" && places > 1 && !isSure(at.error, limit)
        ? peakToHear(known.placed, known.points)
        : null;
    const last = inForce(bench.here.adjustments).findLast(
      ({ adjusterId, turns }) => adjusterId === at.adjuster.id && turns !== 0,
    );
    const isAtEnd = (turns: number) => last?.atStop === true && turns * (last.turns ?? 0) > 0;
    const turnsToPeak = toPeak === null ? null : turnsTo(toPeak, known);
    if (turnsToPeak !== null && !isAtEnd(turnsToPeak))
      return {
        ...said,
        ...turnAdvice(turnsToPeak, known),
        reason:
          "To where the high tone is loudest: over-bias is a drop from there, and it was not heard there yet. From there back.",
      };
    if (isContent(at.error, limit))
      return {
        ...said,
        advice: { kind: "leave", effect: null },
        headline: "leave it there",
        reason: "Within reach of what can be known. Log it as left.",
      };
    if (places < 2)
      return {
        ...said,
        advice: { kind: "trial", turns: TRIAL_TURNS },
        headline: `try ${turnInWords(TRIAL_TURNS)}, clockwise`,
        reason: "A small trial turn shows what this screw does. Turn, say so, and let it be heard again.",
      };
    const answer = known.answers.find((one) => one.school === chosen)!;
    if (answer.turns === null)
      return { ...said, advice: { kind: "unclear" }, headline: "cannot be told", reason: answer.says };
    const turns = turnsTo(answer.turns, known);
    const dbPerTurn = known.law.dbPerTurn;
    if (isAtEnd(turns))
      return {
        ...said,
        advice: { kind: "unclear" },
        headline: "no more travel this way",
        reason: NO_TRAVEL,
      };
    return {
      ...said,
      ...turnAdvice(turns, known),
      reason: `${Math.round(360 * Math.abs(turns))}°, known to ±${Math.round(360 * answer.uncertaintyTurns)}°: ${answer.says} This screw gives ${fixed(dbPerTurn, 1, true)} dB of bias a turn.`,
    };
  },
  seeksPeak: () => false,
  learns: biasScrews,
  nothingToTurn: "This machine has no bias trimmer written down.",
  setUp: [
    "Set record-head azimuth first; leave the record equaliser alone.",
    "Send the bias sequence and record it on the tape that will be used.",
    "Three heads: monitor the source for one pass, then the tape; or watch both tones off the tape while you turn. Two heads: record, rewind, play.",
  ],
  checks: [],
  caution: MAINS,
};
