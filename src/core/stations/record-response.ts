import { judgeResponse } from "@/core/judging/judge-response";
import { recordsTape, type Machine } from "@/core/records/machine";
import type { ReturnedChannel, ReturnedCurve, ReturnedPoint } from "@/core/returned/returned";
import { PRESETS } from "@/core/signals/presets";
import { TOLERANCE_CLASSES, type Corridor } from "@/core/standards/tolerance-classes";
import { adviseByNumber } from "./advise-by-number";
import { MAINS } from "./cautions";
import { channelNames, heardOn, ownChannel } from "./channels";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { recordedAt, recordedHere, type Recorded } from "./recorded";
import type { MeasuringStation } from "./station";
import { nothingToLog, unlessLacking } from "./station-readings";

const quantities = {
  "recordResponse.worst": { name: "Largest record response error", unit: "dB", decimals: 2, signed: true },
  "recordResponse.treble": {
    name: "Recorded treble re the middle",
    unit: "dB",
    decimals: 2,
    signed: true,
    unprinted: true,
  },
  // points of a curve are drawn
  "recordResponse.point": { name: "Record response", unit: "dB", decimals: 2, signed: true, unprinted: true },
} as const;
type RecordResponseQuantity = keyof typeof quantities;

const SEQUENCE = PRESETS.find(({ id }) => id === "record-response")!;
/** Ways of hearing a response, the one that is judged by first. */
export const RECORD_SOURCES = ["steps", "sweep", "pink"] as const;
export type RecordSource = (typeof RECORD_SOURCES)[number];

/** What a recording has to stay within; that of playback where the class asks nothing of a recording. */
export function recordCorridor({ toleranceClass, limits }: Machine): Corridor {
  const { recordResponse, response } = TOLERANCE_CLASSES[toleranceClass];
  const house = recordResponse ?? response;
  return { ...house, db: limits.recordResponseDb ?? house.db };
}

export interface RecordCurve {
  channel: string;
  points: ReturnedPoint[];
}

/** The response of each channel by one way of hearing it, what went in taken away point by point where that was heard. */
export function recordCurves(
  { pass, source }: Recorded,
  from: RecordSource,
  channelCount: 1 | 2,
): RecordCurve[] {
  const curvesIn = (one: Recorded["pass"]) =>
    one.segments
      .flatMap(({ channels }) => channels)
      .flatMap((channel) => (isCurve(channel) && channel.kind === from ? [channel] : []));
  const went = source ? curvesIn(source) : [];
  const came = curvesIn(pass);
  return channelNames(channelCount).flatMap((channel, c) => {
    const own = heardOn(came, c);
    if (!own) return [];
    const before = heardOn(went, c);
    const points = own.points.flatMap((one): ReturnedPoint[] => {
      const point = { ...one, uncertaintyDb: Math.hypot(LEAST_UNCERTAINTY_DB, one.uncertaintyDb) };
      if (!before) return [point];
      const same = before.points.find(
        ({ frequencyHz }) => Math.abs(frequencyHz / point.frequencyHz - 1) < SAME,
      );
      return same
        ? [
            {
              ...point,
              levelDb: point.levelDb - same.levelDb,
              uncertaintyDb: Math.hypot(point.uncertaintyDb, same.uncertaintyDb),
            },
          ]
        : [];
    });
    return [{ channel, points }];
  });
}
const SAME = 0.005;
/** A tape is not the same from one second to the next. */
const LEAST_UNCERTAINTY_DB = 0.05;

const isCurve = (channel: ReturnedChannel): channel is ReturnedChannel & ReturnedCurve => "points" in channel;

/** What was recorded last: from the tones where they were heard, or else from the sweep or the noise. */
export function recordResponseNow(bench: OnTheBench) {
  const { recorded, lacks } = recordedHere(bench);
  const last = recorded.at(-1) ?? null;
  const corridor = recordCorridor(bench.here.machine);
  const ways = RECORD_SOURCES.flatMap((from) => {
    const curves = last ? recordCurves(last, from, bench.here.machine.channels) : [];
    const channels = curves.map((curve) => ({ ...curve, judged: judgeResponse(curve.points, corridor) }));
    return channels.length > 0 ? [{ from, channels }] : [];
  });
  return { last, lacks, corridor, ways };
}

export const recordResponse: MeasuringStation<"record-response", RecordResponseQuantity> = {
  id: "record-response",
  kind: "measure",
  name: "Record response",
  short: "Rec response",
  group: "record",
  quantities,
  onRoute: recordsTape,
  deciding: () => ["recordResponse.worst"],
  limitOf: (machine, quantity) => (quantity === "recordResponse.worst" ? recordCorridor(machine).db : null),
  ownLimits: [{ key: "recordResponseDb", label: "Own record response limit ±, dB", most: 20 }],
  corridorOf: recordCorridor,
  apartBy: ["speed", "channel", "recordingOn"],
  circumstances: ["recordingOn"],
  adjusters: [{ kind: "turn", says: "turned, record equaliser", actsOn: ["channel", "tapeType"] }],
  hears: { what: "sequence", flutter: false, role: null, sequence: SEQUENCE.id, follows: null, steady: null },
  tapeLacks: () => null,
  upsets: ["bias", "record-response", "distortion", "reduction", "settings"],
  readings: (bench) => {
    const { last, lacks, corridor, ways } = recordResponseNow(bench);
    const [way] = ways;
    if (!last) return nothingToLog(lacks ?? "");
    const why = lacks ?? (way ? null : "Nothing of the response could be measured in this pass.");
    const readings = (context: LogContext) => {
      const figures = way.channels.flatMap(({ channel, points }) => {
        const { worst, treble } = judgeResponse(points, corridor);
        const figure = (
          quantity: RecordResponseQuantity,
          point: ReturnedPoint | null,
        ): Figure<RecordResponseQuantity> | null =>
          point && {
            quantity,
            channel,
            value: point.levelDb,
            uncertainty: point.uncertaintyDb,
            nominalHz: point.frequencyHz,
          };
        return [
          figure("recordResponse.worst", worst),
          figure("recordResponse.treble", treble),
          ...points.map((point) => figure("recordResponse.point", point)),
        ];
      });
      return readingsOfMoment(
        recordResponse,
        { ...context, at: recordedAt(context.at, last.agoSeconds) },
        { seconds: 3, method: METHODS[way.from] },
        figures,
      );
    };
    return unlessLacking(why, readings);
  },
  advise: (bench, chosen) => {
    const { lacks, corridor, ways } = recordResponseNow(bench);
    return adviseByNumber(
      bench,
      {
        station: recordResponse,
        quantity: "recordResponse.treble",
        limit: corridor.db,
        live: ({ channel }) => {
          const own = ways[0] ? ownChannel(ways[0].channels, channel) : undefined;
          const point = own?.judged.treble;
          return point
            ? {
                value: point.levelDb,
                uncertainty: point.uncertaintyDb,
                settled: lacks === null,
                from: "passes",
              }
            : null;
        },
        hearFirst: lacks ?? "",
      },
      chosen,
    );
  },
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn: "This machine has no record equaliser written down: bias shapes the treble, then the head.",
  setUp: [
    "Bias and record level come first: bias too high or low looks like an equaliser.",
    "Send the record response sequence, 20 dB down, and record it on this tape.",
    "Three heads: monitor the source for one pass, then the tape. Two heads: record, rewind, play.",
  ],
  checks: [],
  caution: MAINS,
};

const METHODS: Record<RecordSource, string> = {
  steps: "levels of tones re the first tone of the pass, what went in taken away",
  sweep: "level along the sweep re the first tone of the pass, what went in taken away",
  pink: "pink noise by H1 re the first tone of the pass, what went in taken away",
};
