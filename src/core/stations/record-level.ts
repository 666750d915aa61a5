import type { SourceAndTape, StoodAt } from "@/core/playback/source-and-tape";
import type { Machine } from "@/core/records/machine";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { adviseByNumber } from "./advise-by-number";
import { MAINS } from "./cautions";
import { ownChannel } from "./channels";
import { readingsOfMoment, type LogContext } from "./log-context";
import type { MeasuringStation } from "./station";
import { nothingToLog, STILL_SETTLING } from "./station-readings";

const quantities = {
  "recordLevel.error": { name: "Record level error", unit: "dB", decimals: 2, signed: true },
} as const;

const USUAL_LIMIT_DB = 1;
/** A steady tone off tape tells a tenth of a decibel, and the ear hears two tenths between channels. */
const GOOD_ENOUGH_DB = 0.1;
const METHOD = "level that came off the tape less the level that went in, one tone";
/** Nothing that is worth setting goes in so low. */
const FAINTEST_DBFS = -60;

const limitOf = ({ limits, toleranceClass }: Machine): number | null =>
  limits.recordLevelDb ?? TOLERANCE_CLASSES[toleranceClass].balanceDb;

/** What came back less what went in, a channel each. */
export interface Returned {
  channel: string;
  errorDb: number;
  uncertaintyDb: number;
}

/** Null where there are not both, of one tone. */
export function returnedOf(
  source: StoodAt | null,
  tape: StoodAt | null,
  channelCount: number,
): Returned[] | null {
  if (!source || !tape) return null;
  const uncertaintyDb = Math.hypot(source.uncertaintyDb, tape.uncertaintyDb);
  const names = channelCount === 1 ? ["both"] : ["left", "right"];
  const returned = names.map((channel, c) => ({
    channel,
    errorDb: tape.levelsDbfs[c] - source.levelsDbfs[c],
    uncertaintyDb,
  }));
  return source.levelsDbfs.slice(0, names.length).every((level) => level > FAINTEST_DBFS) ? returned : null;
}

/** Why there is nothing to log yet; null when there is. */
function lacking(comparison: SourceAndTape | null, returned: Returned[] | null): string | null {
  if (!comparison || comparison.frequencyHz === 0)
    return "No tone was heard yet: send one to the machine and record it.";
  if (!comparison.source) return "What goes in was not heard yet: switch the monitor to source for a moment.";
  if (!comparison.tape) return "What comes back was not heard yet: record, and switch the monitor to tape.";
  if (returned === null) return "What goes in is silent on a channel: raise the level, or find the lead.";
  return comparison.tape.settled ? null : STILL_SETTLING;
}

export const recordLevel: MeasuringStation<"record-level", keyof typeof quantities> = {
  id: "record-level",
  kind: "measure",
  name: "Record level",
  group: "record",
  quantities,
  onRoute: ({ monitorsTape }) => monitorsTape === true,
  deciding: () => ["recordLevel.error"],
  limitOf,
  ownLimits: [{ key: "recordLevelDb", label: "Own record level limit ±, dB", most: 20 }],
  corridorOf: () => null,
  apartBy: ["speed", "channel", "recordingOn"],
  circumstances: ["recordingOn"],
  adjusters: [{ kind: "turn", says: "turned, sets record level", actsOn: ["channel", "tapeType"] }],
  hears: { what: "source and tape", flutter: false, role: null, sequence: "record-level" },
  tapeLacks: () => null,
  upsets: ["record-level"],
  readings: ({ heard, here: { machine } }) => {
    const comparison = heard?.comparison ?? null;
    const returned = (tape: StoodAt | null) => returnedOf(comparison?.source ?? null, tape, machine.channels);
    const now = returned(comparison?.tape ?? null);
    const why = lacking(comparison, now);
    if (!comparison || !now) return nothingToLog(why ?? "");
    const readings = (channels: Returned[]) => (context: LogContext) =>
      readingsOfMoment(
        recordLevel,
        { ...context, nominalHz: comparison.frequencyHz },
        { seconds: 2, method: METHOD },
        channels.map(({ channel, errorDb, uncertaintyDb }) => ({
          quantity: "recordLevel.error",
          channel,
          value: errorDb,
          uncertainty: uncertaintyDb,
        })),
      );
    return {
      toLog: (context) => why ?? readings(now)(context),
      afterTurn: (context) => (why === null ? readings(now)(context) : null),
      beforeTurn: (context) => {
        const before = returned(comparison.before);
        return before ? readings(before)(context) : why === null ? readings(now)(context) : null;
      },
    };
  },
  advise: (bench, chosen) => {
    const { heard, here } = bench;
    const comparison = heard?.comparison ?? null;
    const returned = returnedOf(comparison?.source ?? null, comparison?.tape ?? null, here.machine.channels);
    return adviseByNumber(
      bench,
      {
        station: recordLevel,
        quantity: "recordLevel.error",
        limit: limitOf(here.machine) ?? USUAL_LIMIT_DB,
        goodEnough: GOOD_ENOUGH_DB,
        live: ({ channel }) => {
          const own = returned ? ownChannel(returned, channel) : undefined;
          return own && comparison?.tape
            ? { value: own.errorDb, uncertainty: own.uncertaintyDb, settled: comparison.tape.settled }
            : null;
        },
        hearFirst: lacking(comparison, returned) ?? "",
      },
      chosen,
    );
  },
  seeksPeak: () => false,
  nothingToTurn: "This machine has no record level trimmer written down.",
  setUp: [
    "Record a steady tone near 0 on the tape that will be used; the machine's meter tells where 0 is.",
    "Monitor the source for three seconds, then the tape; switch as often as you like.",
  ],
  checks: [],
  caution: MAINS,
};
