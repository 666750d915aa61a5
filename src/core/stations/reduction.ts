import { inForce } from "@/core/records/job-records";
import { recordsTape, type FrontSwitch, type Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { ZERO_DBFS, type ReturnedPass } from "@/core/returned/returned";
import { PRESETS } from "@/core/signals/presets";
import { nothingAdvised } from "./advised";
import { MAINS } from "./cautions";
import { channelNames, heardOn } from "./channels";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { recordedAt, recordedHere } from "./recorded";
import { AT, isSame, LEVELS, switchDoes, worstOf, type Level, type MapPoint } from "./reduction-map";
import type { MeasuringStation } from "./station";
import { nothingToLog, unlessLacking } from "./station-readings";

const POINT = { unit: "dB", decimals: 1, signed: true, unprinted: true } as const;
const quantities = {
  "reduction.worst": {
    name: "Largest error with noise reduction",
    unit: "dB",
    decimals: 1,
    signed: true,
  },
  "multiplex.at15": { name: "Multiplex filter at 15 kHz", unit: "dB", decimals: 1, signed: true },
  "multiplex.at19": {
    name: "Multiplex filter takes off at 19 kHz",
    unit: "dB",
    decimals: 1,
    signed: false,
    atLeast: true,
    scale: [0, 40],
  },
  "headroom.loud": {
    name: "Headroom extension gains at 0, 10 kHz",
    unit: "dB",
    decimals: 1,
    signed: true,
    atLeast: true,
    scale: [-6, 6],
  },
  "headroom.quiet": { name: "Headroom extension at −20, 10 kHz", unit: "dB", decimals: 1, signed: true },
  "reduction.at0": { ...POINT, name: "Came back less sent, at 0" },
  "reduction.at10": { ...POINT, name: "Came back less sent, 10 dB down" },
  "reduction.at20": { ...POINT, name: "Came back less sent, 20 dB down" },
  "reduction.at30": { ...POINT, name: "Came back less sent, 30 dB down" },
  "reduction.at40": { ...POINT, name: "Came back less sent, 40 dB down" },
} as const;
type ReductionQuantity = keyof typeof quantities;

const SEQUENCE = PRESETS.find(({ id }) => id === "noise-reduction")!;
const STUDIO_LIMIT_DB = 1;
const USUAL_LIMIT_DB = 2;
const MULTIPLEX_15_DB = 1;
const MULTIPLEX_19_DB = 20;
const HEADROOM_LOUD_DB = 0.5;
const HEADROOM_QUIET_DB = 0.5;
const LEAST_UNCERTAINTY_DB = 0.2;
const reductionLimit = ({ limits, toleranceClass }: Machine): number =>
  limits.reductionDb ?? (toleranceClass === "studio" ? STUDIO_LIMIT_DB : USUAL_LIMIT_DB);

/** A pass of the sequence as it is switched now, and the last one with everything off; why nothing can be told. */
export interface ReductionNow {
  switchedOn: readonly FrontSwitch[];
  points: MapPoint[];
  /** Null where none was logged since something of the record side was turned. */
  off: MapPoint[] | null;
  lacks: string | null;
  agoSeconds: number;
}

export function reductionNow(bench: OnTheBench): ReductionNow {
  const { switchedOn = [] } = bench.circumstances;
  const off = offLogged(bench);
  const { recorded, lacks } = recordedHere(bench, true);
  const last = recorded.at(-1);
  if (!last) return { switchedOn, points: [], off, lacks, agoSeconds: 0 };
  const came = pointsOf(last.pass, bench.here.machine.channels);
  const went = last.source ? pointsOf(last.source, bench.here.machine.channels) : null;
  const points = came.flatMap((point): MapPoint[] => {
    const sent = went?.find((one) => isSame(one, point));
    if (went && !sent) return [];
    return [
      {
        ...point,
        errorDb: point.errorDb - (sent?.errorDb ?? 0),
        uncertaintyDb: Math.hypot(LEAST_UNCERTAINTY_DB, point.uncertaintyDb, sent?.uncertaintyDb ?? 0),
      },
    ];
  });
  const together = switchedOn.length > 1 ? ONE_AT_A_TIME : null;
  const needsOff = switchedOn.length > 0 && off === null;
  return {
    switchedOn,
    points,
    off,
    agoSeconds: last.agoSeconds,
    lacks:
      lacks ??
      together ??
      (needsOff
        ? "First record it with everything switched off, and log that: what a switch does is the difference."
        : null),
  };
}

const ONE_AT_A_TIME = "One switch at a time: what two of them do together cannot be told apart.";

/** Every tone of a pass by its level as sent. */
function pointsOf({ segments }: ReturnedPass, channels: Machine["channels"]): MapPoint[] {
  return channelNames(channels).flatMap((channel, c) => {
    const own = segments.flatMap((segment) => {
      const came = heardOn(segment.channels, c);
      return came ? [{ came, sent: SEQUENCE.segments[segment.index] }] : [];
    });
    const first = own.find(({ came }) => came.kind === "sine")?.came;
    // steps are told re the first tone: nothing is known of them where that was not heard
    const firstDb = first?.kind === "sine" ? first.levelDb : null;
    return own.flatMap(({ came, sent }): MapPoint[] => {
      if (!sent || !("levelDb" in sent)) return [];
      const level = LEVELS.find((one) => one === Math.round(sent.levelDb - ZERO_DBFS));
      if (level === undefined) return [];
      if (came.kind === "sine" && came.levelDb !== null) {
        const { frequencyHz, levelDb, uncertaintyDb } = came;
        return [{ channel, level, frequencyHz, errorDb: levelDb, uncertaintyDb }];
      }
      return came.kind === "steps" && firstDb !== null
        ? came.points.map(({ frequencyHz, levelDb, uncertaintyDb }) => ({
            channel,
            level,
            frequencyHz,
            errorDb: levelDb + firstDb,
            uncertaintyDb,
          }))
        : [];
    });
  });
}

/** What was logged last with everything off on this tape, unless something of the record side was turned since. */
function offLogged({ here, circumstances }: OnTheBench): MapPoint[] | null {
  const logged = inForce(here.readings).filter(
    ({ station, context }) =>
      station === "reduction" &&
      context.recordingOn === circumstances.recordingOn &&
      (context.switchedOn ?? []).length === 0,
  );
  const last = logged.at(-1);
  if (!last) return null;
  const turned = inForce(here.adjustments).some(
    (one) => one.turns !== 0 && one.at > last.at && UPSET_BY.includes(one.station),
  );
  return turned ? null : pointsAt(logged, last.at);
}

/** The points of the map that were logged at a moment. */
const pointsAt = (logged: readonly Reading[], moment: string): MapPoint[] =>
  logged
    .filter(({ at }) => at === moment)
    .flatMap(({ quantity, context, value, uncertainty }): MapPoint[] => {
      const level = LEVELS.find((one) => AT[one] === quantity);
      return level === undefined
        ? []
        : [
            {
              channel: context.channel,
              level,
              frequencyHz: context.nominalHz,
              errorDb: value,
              uncertaintyDb: uncertainty,
            },
          ];
    });

/** The map that was logged last with noise reduction on, on the tape that is recorded on where one is said; null without one. */
export function mapLogged({
  here,
  circumstances: { recordingOn },
}: Pick<OnTheBench, "here" | "circumstances">): {
  points: MapPoint[];
  at: string;
  recordingOn: string | undefined;
} | null {
  const logged = inForce(here.readings).filter(
    ({ station, context }) =>
      station === "reduction" &&
      (recordingOn === undefined || context.recordingOn === recordingOn) &&
      (context.switchedOn ?? []).join() === "reduction",
  );
  const last = logged.at(-1);
  return last
    ? { points: pointsAt(logged, last.at), at: last.at, recordingOn: last.context.recordingOn }
    : null;
}
const UPSET_BY: readonly string[] = [
  "bias",
  "record-level",
  "record-response",
  "level",
  "response",
  "settings",
];

/** What is logged of the switches that are on. */
function switchFigures(
  { switchedOn, points, off }: ReductionNow,
  limitDb: number,
): Array<Figure<ReductionQuantity> | null> {
  if (off === null) return [];
  const does = (quantity: ReductionQuantity, level: Level, hz: number, sign = 1) => {
    const found = switchDoes(points, off, level, hz);
    return found && { quantity, channel: "both", value: sign * found.db, uncertainty: found.uncertaintyDb };
  };
  const worst = worstOf(points, limitDb);
  return [
    switchedOn.includes("reduction") && worst
      ? {
          quantity: "reduction.worst",
          channel: "both",
          value: worst.errorDb,
          uncertainty: worst.uncertaintyDb,
          nominalHz: worst.frequencyHz,
        }
      : null,
    ...(switchedOn.includes("multiplex")
      ? [does("multiplex.at15", -20, 15_000), does("multiplex.at19", -20, 19_000, -1)]
      : []),
    ...(switchedOn.includes("headroom")
      ? [does("headroom.loud", 0, 10_000), does("headroom.quiet", -20, 10_000)]
      : []),
  ];
}

export const reduction: MeasuringStation<"reduction", ReductionQuantity> = {
  id: "reduction",
  kind: "measure",
  name: "Noise reduction",
  short: "NR",
  group: "record",
  quantities,
  onRoute: (machine) => recordsTape(machine) && Object.keys(machine.switches ?? {}).length > 0,
  deciding: ({ switches = {} }) => {
    const all: ReductionQuantity[] = [
      ...(switches.reduction ? (["reduction.worst"] as const) : []),
      ...(switches.multiplex ? (["multiplex.at15", "multiplex.at19"] as const) : []),
      ...(switches.headroom ? (["headroom.loud", "headroom.quiet"] as const) : []),
    ];
    const [first = "reduction.worst", ...others] = all;
    return [first, ...others];
  },
  limitOf: (machine, quantity) => {
    switch (quantity) {
      case "reduction.worst":
        return reductionLimit(machine);
      case "multiplex.at15":
        return MULTIPLEX_15_DB;
      case "multiplex.at19":
        return MULTIPLEX_19_DB;
      case "headroom.loud":
        return HEADROOM_LOUD_DB;
      case "headroom.quiet":
        return HEADROOM_QUIET_DB;
      case "reduction.at0":
      case "reduction.at10":
      case "reduction.at20":
      case "reduction.at30":
      case "reduction.at40":
        return null;
    }
  },
  ownLimits: [{ key: "reductionDb", label: "Own limit of noise reduction ±, dB", most: 20 }],
  corridorOf: () => null,
  apartBy: ["speed", "channel", "recordingOn", "switchedOn"],
  circumstances: ["recordingOn", "switchedOn"],
  adjusters: [{ kind: "work", says: "work, on noise reduction and filters", actsOn: [] }],
  hears: { what: "sequence", flutter: false, role: null, sequence: SEQUENCE.id, follows: null, steady: null },
  tapeLacks: () => null,
  upsets: ["reduction"],
  readings: (bench) => {
    const now = reductionNow(bench);
    if (now.points.length === 0) return nothingToLog(now.lacks ?? "None of its tones was heard.");
    const readings = (context: LogContext): Reading[] =>
      readingsOfMoment(
        reduction,
        { ...context, at: recordedAt(context.at, now.agoSeconds) },
        { seconds: 2, method: METHOD },
        [
          ...switchFigures(now, reductionLimit(bench.here.machine)),
          ...now.points.map(({ channel, level, frequencyHz, errorDb, uncertaintyDb }) => ({
            quantity: AT[level],
            channel,
            value: errorDb,
            uncertainty: uncertaintyDb,
            nominalHz: frequencyHz,
          })),
        ],
      );
    return unlessLacking(now.lacks, readings);
  },
  advise: (bench) => {
    const { points, lacks } = reductionNow(bench);
    const worst = worstOf(points, reductionLimit(bench.here.machine));
    return nothingAdvised({
      quantity: "reduction.worst",
      value: worst?.errorDb ?? null,
      uncertainty: worst?.uncertaintyDb ?? 0,
      settled: lacks === null,
    });
  },
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn: "Noise reduction has no trimmer here: record level is what it trips over most.",
  setUp: [
    "Set record level first: noise reduction makes a decibel that is missing into two.",
    "Record the sequence with everything switched off, and log it.",
    "Then one switch at a time: on, say so below, record it again, and log that.",
  ],
  checks: [],
  caution: MAINS,
};
const METHOD = "tones at several levels, came back less sent";
