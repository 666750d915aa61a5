import { judgeResponse } from "@/core/judging/judge-response";
import type { ResponsePoint } from "@/core/measure/response";
import { tellsResponse, type PlaybackNumbers } from "@/core/playback/playback-numbers";
import type { ResponseSource } from "@/core/playback/response-runs";
import type { Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { TOLERANCE_CLASSES, type Corridor } from "@/core/standards/tolerance-classes";
import { adviseByNumber } from "./advise-by-number";
import { MAINS } from "./cautions";
import { ownChannel, shiftedBack } from "./channels";
import { heardFrom } from "./heard-from";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import { saidOfTape } from "./said-of-tape";
import type { MeasuringStation } from "./station";
import { nothingToLog } from "./station-readings";

const quantities = {
  "response.worst": { name: "Largest response error", unit: "dB", decimals: 2, signed: true },
  "response.treble": {
    name: "Treble re reference",
    unit: "dB",
    decimals: 2,
    signed: true,
    unprinted: true,
  },
  // points of a curve are drawn
  "response.point": { name: "Response", unit: "dB", decimals: 2, signed: true, unprinted: true },
} as const;
type ResponseQuantity = keyof typeof quantities;

const SAME_BAND = 0.02;

/** What the response of a machine has to stay within. */
export function responseCorridor({ toleranceClass, limits }: Machine): Corridor {
  const house = TOLERANCE_CLASSES[toleranceClass].response;
  return { ...house, db: limits.responseDb ?? house.db };
}

export interface ResponseToLog {
  from: ResponseSource | null;
  channels: ReadonlyArray<{ channel: string; points: ResponsePoint[] }>;
}

const METHODS: Record<ResponseSource, string> = {
  bands: "band levels re the reference band, tape and certificate taken away",
  sweep: "level along the sweep re the reference band, tape and certificate taken away",
  noise: "pink noise in bands of a third and a sixth of an octave, re its own middle",
};

/** Every point of the response of each channel, with its worst and the point that the equaliser is set by. */
export function responseReadings(
  { from, channels }: ResponseToLog,
  machine: Machine,
  context: LogContext,
): Reading[] {
  const figures = channels.flatMap(({ channel, points }) => {
    const { worst, treble } = judgeResponse(points, responseCorridor(machine));
    const figure = (
      quantity: ResponseQuantity,
      point: ResponsePoint | null,
    ): Figure<ResponseQuantity> | null =>
      point && {
        quantity,
        value: point.levelDb,
        uncertainty: point.uncertaintyDb,
        channel,
        nominalHz: point.frequencyHz,
      };
    return [
      figure("response.worst", worst),
      figure("response.treble", treble),
      ...points.map((point) => figure("response.point", point)),
    ];
  });
  return readingsOfMoment(response, context, { seconds: 1, method: METHODS[from ?? "bands"] }, figures);
}

/** The equaliser is set by one band: while that plays it shows every turn. */
const plays = ({ now: { playing }, response: { indexes } }: PlaybackNumbers, hz: number): boolean =>
  playing !== null && indexes.includes(playing.index) && Math.abs(hz / playing.frequencyHz - 1) < SAME_BAND;

const trebleOf = (numbers: PlaybackNumbers, readings: Reading[]) =>
  readings.filter(
    ({ quantity, context: { nominalHz } }) => quantity === "response.treble" && plays(numbers, nominalHz),
  );

export const response: MeasuringStation<"response", ResponseQuantity> = {
  id: "response",
  kind: "measure",
  name: "Response",
  group: "playback",
  onRoute: () => true,
  quantities,
  deciding: () => ["response.worst"],
  limitOf: (machine, quantity) => (quantity === "response.worst" ? responseCorridor(machine).db : null),
  ownLimits: [{ key: "responseDb", label: "Own response limit ±, dB", most: 20 }],
  corridorOf: responseCorridor,
  apartBy: ["speed", "side", "channel"],
  circumstances: ["side"],
  adjusters: [
    { kind: "turn", says: "turned, playback equaliser", actsOn: ["channel", "side"] },
    { kind: "work", says: "work, at the head", actsOn: [] },
  ],
  hears: {
    what: "reference tape",
    flutter: false,
    role: "response",
    sequence: null,
    follows: null,
    steady: null,
  },
  tapeLacks: ({ tape }) => (tellsResponse(tape) ? null : "has too few bands for a response"),
  upsets: ["level", "response", "bias", "record-level", "record-response", "reduction", "settings"],
  readings: (bench) => {
    const {
      numbers,
      here: { machine },
    } = bench;
    if (!numbers) return nothingToLog("Nothing of the tape was heard yet: play it.");
    const { channels, missing } = numbers.response;
    const { playing } = numbers.now;
    const all = (context: LogContext) => responseReadings(numbers.response, machine, context);
    const treble = (context: LogContext) => trebleOf(numbers, all(context));
    return {
      toLog: (context) => {
        const lacks = saidOfTape(response, bench);
        if (lacks) return lacks;
        if (channels.every(({ judged }) => judged.worst === null))
          return "Nothing of the tape was heard yet: play it.";
        if (missing.length > 0) return `Not heard yet, or not since the last turn: ${missing.join("; ")}.`;
        return all(context);
      },
      afterTurn: (context) => (playing?.settled ? treble(context) : null),
      beforeTurn: (context) =>
        playing?.before
          ? shiftedBack(treble(context), playing.levelsDbfs, playing.before.levelsDbfs)
          : playing?.settled
            ? treble(context)
            : null,
    };
  },
  advise: (bench, chosen) => {
    const { numbers } = bench;
    return adviseByNumber(
      bench,
      {
        station: response,
        quantity: "response.treble",
        limit: responseCorridor(bench.here.machine).db,
        live: ({ channel }) => {
          if (!numbers) return null;
          const own = ownChannel(numbers.response.channels, channel);
          const point = own?.judged.treble;
          // what was logged before tells nothing of a channel that is silent now
          if (own?.silent) return { value: null, uncertainty: 0, settled: false };
          return own && point
            ? {
                value: point.levelDb,
                uncertainty: point.uncertaintyDb,
                settled: own.trebleFresh,
                from: heardFrom(numbers.now.playing, plays(numbers, point.frequencyHz)),
              }
            : null;
        },
        hearFirst: "The bands come first; stay on the highest to turn the equaliser.",
        held: ({ channel }) => {
          const reason = ownChannel(numbers?.response.channels ?? [], channel)?.silent
            ? numbers?.response.doubts.find(({ kind }) => kind === "dead")?.says
            : undefined;
          return reason ? { headline: "look at the input", reason } : null;
        },
      },
      chosen,
    );
  },
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn: "This machine has no playback equaliser written down: clean, then azimuth, then parts.",
  setUp: [
    "Play the frequency bands through; they fill in by themselves.",
    "Turn the equaliser on a high band, then play all of them again.",
  ],
  checks: [],
  caution: MAINS,
};
