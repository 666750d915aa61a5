import type { BiasSchool } from "@/core/records/job";
import { HEARD_SCHOOLS, type HeardSchool } from "@/core/guidance/bias-answers";
import {
  biasErrorNow,
  biasKnown,
  turnsTo,
  type BiasKnown,
  type BiasReading,
} from "@/core/guidance/bias-screw";
import { directionInWords, turnInWords, type TurnAdvice } from "@/core/guidance/turn-guidance";
import { overBiasAt } from "@/core/records/blank-tape";
import { inForce } from "@/core/records/job-records";
import { recordsTape, type Adjuster } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { biasHeard, type BiasHeard } from "@/core/returned/bias-points";
import { PRESETS } from "@/core/signals/presets";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { fixed } from "@/core/text/number-text";
import { actingAdjusters } from "./acting-adjusters";
import { nothingAdvised, type Advised } from "./advised";
import { MAINS } from "./cautions";
import { channelNames, heardOn } from "./channels";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { recordedAt, recordedHere, type Recorded } from "./recorded";
import { rememberSome } from "./remember-some";
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

const SEQUENCE = PRESETS.find(({ id }) => id === "bias")!;
const METHODS: Record<HeardSchool, string> = {
  "over-bias": "bias re where the high tone has dropped by the tape's figure",
  flatness: "bias re where the high tone comes back as loud as the middle one",
  "third-harmonic": "bias re where the third harmonic is least",
};
const SAME_MOMENT_MS = 3000;
const TRIAL_TURNS = 0.125;
/** Nearer than this share of the limit there is nothing to gain by turning. */
const GOOD_ENOUGH_SHARE = 0.3;
const LEVEL_UNCERTAINTY_DB = 0.06;
const THIRD_UNCERTAINTY_DB = 0.5;

/** The school that a job is set by, of those that are heard; the maker's figure is typed. */
export const schoolOf = ({ biasSchool = "flatness" }: { biasSchool?: BiasSchool }): BiasSchool => biasSchool;

const sentDb = (segment: number): number | null => {
  const sent = SEQUENCE.segments.at(segment);
  return sent?.kind === "sine" ? sent.levelDb : null;
};

/** What a pass tells of each channel, what went in taken away where that was heard. */
export function biasOf({ pass, source }: Recorded, channelCount: number): BiasHeard[] {
  const wentIn = source && biasHeard(source, sentDb, channelCount);
  return biasHeard(pass, sentDb, channelCount).flatMap((one, c) => {
    if (one === null) return [];
    const before = wentIn?.[c];
    return [
      before ? { ...one, middleDb: one.middleDb - before.middleDb, highDb: one.highDb - before.highDb } : one,
    ];
  });
}

/** A bias screw of a channel with everything that is known of it on the blank tape that is recorded on. */
export interface BiasSide {
  channel: string;
  adjuster: Adjuster | undefined;
  /** What was heard last; null before anything was. */
  last: { heard: BiasHeard; fresh: boolean } | null;
  /** Null before anything was heard. */
  known: BiasKnown | null;
  overBiasDb: number | null;
}

const known = rememberSome((screw: Parameters<typeof biasKnown>[0]) => JSON.stringify(screw), biasKnown);

/** Both channels, from what was logged and what was heard since. */
export function biasSides(bench: OnTheBench): BiasSide[] {
  const { here, circumstances } = bench;
  const { machine, job, blanks = [] } = here;
  const { recorded } = recordedHere(bench);
  const adjusters = actingAdjusters(bias, bench);
  const blank = blanks.find(({ id }) => id === circumstances.recordingOn);
  const overBias = overBiasAt(blank, job.speedCmPerS);
  const adjustments = inForce(here.adjustments);
  return channelNames(machine.channels).map((channel, c) => {
    const adjuster =
      adjusters.find((one) => one.channel === channel) ?? adjusters.find((one) => !one.channel);
    const turned = adjustments.filter(({ adjusterId, turns }) => adjusterId === adjuster?.id && turns !== 0);
    // turns that nobody counted end the chain
    const from = turned.findLastIndex(({ turns }) => turns === null);
    const counted = turned.slice(from + 1);
    const since = turned.at(from)?.at ?? "";
    const logged = loggedPoints(here.readings, channel, circumstances.recordingOn).filter(
      ({ at }) => from < 0 || at > since,
    );
    const live = recorded.flatMap((one) => {
      const heard = heardOn(biasOf(one, machine.channels), c);
      // of the turns that were told those that were made by then
      const by = adjustments.at(-1 - one.turnsSince)?.at ?? "";
      const afterTurns = counted.filter(({ at }) => at <= by).length;
      if (!heard || (from >= 0 && by <= since)) return [];
      const { middleDb, highDb, thirdDb } = heard;
      return [{ middleDb, highDb, thirdDb, afterTurns, live: true }];
    });
    const heardBefore = logged.map(({ at: when, ...point }) => ({
      ...point,
      afterTurns: counted.filter(({ at }) => at < when).length,
      live: false,
    }));
    const all: BiasReading[] = [...heardBefore, ...live];
    const last = recorded.at(-1);
    const lastHeard = last && heardOn(biasOf(last, machine.channels), c);
    const tones = {
      middleHz: lastHeard?.middleHz ?? 315,
      highHz: lastHeard?.highHz ?? 10_000,
      speedCmPerS: job.speedCmPerS,
    };
    const overBiasDb = overBias?.db ?? null;
    const turns = counted.map((one) => one.turns!);
    return {
      channel,
      adjuster,
      last: last && lastHeard ? { heard: lastHeard, fresh: last.fresh } : null,
      known: all.length > 0 ? known({ turns, heard: all, tones, overBiasDb }) : null,
      overBiasDb,
    };
  });
}

/** Middle, high and third of each moment that was logged on a blank tape. */
function loggedPoints(readings: Reading[], channel: string, recordingOn: string | undefined) {
  const moments = new Map<string, Map<string, number>>();
  for (const { quantity, context, at, value, station } of inForce(readings)) {
    if (station !== "bias" || context.channel !== channel || context.recordingOn !== recordingOn) continue;
    moments.set(at, (moments.get(at) ?? new Map<string, number>()).set(quantity, value));
  }
  return [...moments].flatMap(([at, values]) => {
    const [middleDb, highDb] = [values.get("bias.middle"), values.get("bias.high")];
    if (middleDb === undefined || highDb === undefined) return [];
    return [{ at, middleDb, highDb, thirdDb: values.get("bias.third") ?? null }];
  });
}

const limitOf = ({ limits, toleranceClass }: OnTheBench["here"]["machine"]): number =>
  limits.biasDb ?? TOLERANCE_CLASSES[toleranceClass].biasDb;

/** The school whose error is shown and logged: of the maker's figure there is nothing to hear, so flatness beside it. */
export const heardSchool = (school: BiasSchool): HeardSchool =>
  HEARD_SCHOOLS.find((one) => one === school) ?? "flatness";

function figuresOf(bench: OnTheBench, side: BiasSide, one: Recorded, c: number): Array<Figure<BiasQuantity>> {
  const { machine, job } = bench.here;
  const heard = heardOn(biasOf(one, machine.channels), c);
  if (!heard) return [];
  const school = heardSchool(schoolOf(job));
  const error = one.fresh && side.known ? biasErrorNow(school, side.known, side.overBiasDb) : null;
  const { channel } = side;
  const level = { channel, uncertainty: LEVEL_UNCERTAINTY_DB };
  return [
    ...(error
      ? [
          {
            quantity: "bias.error" as const,
            channel,
            value: error.errorDb,
            uncertainty: error.uncertaintyDb,
            method: METHODS[school],
          },
        ]
      : []),
    {
      ...level,
      quantity: "bias.flatness",
      value: heard.highDb - heard.middleDb,
      uncertainty: Math.SQRT2 * LEVEL_UNCERTAINTY_DB,
      nominalHz: heard.highHz,
    },
    ...(heard.thirdDb === null
      ? []
      : [
          {
            quantity: "bias.third" as const,
            channel,
            value: heard.thirdDb,
            uncertainty: THIRD_UNCERTAINTY_DB,
            nominalHz: heard.middleHz,
          },
        ]),
    { ...level, quantity: "bias.middle", value: heard.middleDb, nominalHz: heard.middleHz },
    { ...level, quantity: "bias.high", value: heard.highDb, nominalHz: heard.highHz },
  ];
}

const isContent = (error: ReturnType<typeof biasErrorNow>, limit: number): boolean =>
  error !== null && Math.abs(error.errorDb) <= GOOD_ENOUGH_SHARE * limit && error.uncertaintyDb < limit;

export const bias: MeasuringStation<"bias", BiasQuantity> = {
  id: "bias",
  kind: "measure",
  name: "Bias",
  group: "record",
  quantities,
  onRoute: recordsTape,
  deciding: () => ["bias.error"],
  limitOf: (machine, quantity) => (quantity === "bias.error" ? limitOf(machine) : null),
  ownLimits: [{ key: "biasDb", label: "Own bias limit ±, dB", most: 10 }],
  corridorOf: () => null,
  apartBy: ["speed", "channel", "recordingOn"],
  circumstances: ["recordingOn"],
  adjusters: [{ kind: "turn", says: "turned, sets bias", actsOn: ["channel", "tapeType"] }],
  hears: { what: "sequence", flutter: false, role: null, sequence: SEQUENCE.id },
  tapeLacks: () => null,
  upsets: ["bias", "record-level", "record-response", "distortion"],
  readings: (bench) => {
    const { recorded, lacks } = recordedHere(bench);
    const last = recorded.at(-1);
    if (!last) return nothingToLog(lacks ?? "");
    const readings = (one: Recorded) => (context: LogContext) =>
      readingsOfMoment(
        bias,
        {
          ...context,
          at: recordedAt(context.at, one.agoSeconds),
          // what was recorded before the last turn is of how it stood then
          phase: one === last ? context.phase : "working",
        },
        { seconds: 4, method: "level of tones of the bias sequence, came back less sent" },
        biasSides(bench).flatMap((side, c) => figuresOf(bench, side, one, c)),
      );
    const notLogged = (one: Recorded, context: LogContext) => {
      const at = Date.parse(recordedAt(context.at, one.agoSeconds));
      return !bench.here.readings.some(
        (reading) => reading.station === "bias" && Math.abs(Date.parse(reading.at) - at) < SAME_MOMENT_MS,
      );
    };
    return {
      toLog: (context) =>
        lacks ??
        recorded
          .filter((one) => one === last || notLogged(one, context))
          .flatMap((one) => readings(one)(context)),
      afterTurn: (context) => (lacks === null ? readings(last)(context) : null),
      beforeTurn: (context) => (lacks === null ? readings(last)(context) : null),
    };
  },
  advise: (bench, chosenId): Advised => {
    const { machine, job } = bench.here;
    const { lacks } = recordedHere(bench);
    const school = heardSchool(schoolOf(job));
    const limit = limitOf(machine);
    const sides = biasSides(bench).flatMap((side) => {
      if (!side.adjuster) return [];
      const error = side.known ? biasErrorNow(school, side.known, side.overBiasDb) : null;
      return [{ side, adjuster: side.adjuster, error }];
    });
    const adjusters = [...new Set(sides.map(({ adjuster }) => adjuster))];
    const farthest = sides
      .toSorted((a, b) => Math.abs(b.error?.errorDb ?? 0) - Math.abs(a.error?.errorDb ?? 0))
      .at(0);
    // without a choice: what is in hand until it is content, then what is farthest off
    const inHand = inForce(bench.here.adjustments).at(-1)?.adjusterId;
    const begun = sides.find(({ adjuster, error }) => adjuster.id === inHand && !isContent(error, limit));
    const at = sides.find(({ adjuster }) => adjuster.id === chosenId) ?? begun ?? farthest;
    const toSet = {
      quantity: "bias.error",
      value: at?.error?.errorDb ?? null,
      uncertainty: at?.error?.uncertaintyDb ?? 0,
      settled: lacks === null,
    };
    if (!at) return nothingAdvised(toSet);
    const said = { adjusters, adjuster: at.adjuster, toSet, target: 0, readElsewhere: null, peak: null };
    if (lacks !== null || !at.side.known)
      return { ...said, advice: { kind: "wait" }, headline: "record the sequence", reason: lacks ?? "" };
    const places = new Set(at.side.known.points.map(({ turns }) => turns)).size;
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
        reason: "A small trial turn shows what this screw does. Turn, say so, and record the sequence again.",
      };
    const answer = at.side.known.answers.find((one) => one.school === school)!;
    if (answer.turns === null)
      return { ...said, advice: { kind: "unclear" }, headline: "cannot be told", reason: answer.says };
    const turns = turnsTo(answer.turns, at.side.known);
    const dbPerTurn = at.side.known.laws[0].dbPerTurn;
    const advice: TurnAdvice = {
      kind: "turn",
      turns,
      effect: {
        perTurn: dbPerTurn,
        slackTurns: at.side.known.slackTurns,
        slackKnown: false,
        models: [],
        lastTurn: { turns, change: 0 },
      },
    };
    return {
      ...said,
      advice,
      headline: `${directionInWords(turns)}, ${turnInWords(turns)}`,
      reason: `${Math.round(360 * Math.abs(turns))}°, known to ±${Math.round(360 * answer.uncertaintyTurns)}°: ${answer.says} This screw gives ${fixed(dbPerTurn, 1, true)} dB of bias a turn.`,
    };
  },
  seeksPeak: () => false,
  nothingToTurn: "This machine has no bias trimmer written down.",
  setUp: [
    "Set record-head azimuth first; leave the record equaliser alone.",
    "Send the bias sequence and record it on the tape that will be used.",
    "Three heads: monitor the source for one pass, then the tape. Two heads: record, rewind, play.",
  ],
  checks: [],
  caution: MAINS,
};
