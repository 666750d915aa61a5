import type { SourceAndTape, StoodAt } from "@/core/playback/source-and-tape";
import { recordsTape, type Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import type { ReturnedPass } from "@/core/returned/returned";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { adviseByNumber } from "./advise-by-number";
import { MAINS } from "./cautions";
import { channelNames, heardOn, ownChannel } from "./channels";
import { readingsOfMoment, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { notReady, recordedAt, recordedHere } from "./recorded";
import type { MeasuringStation } from "./station";
import { nothingToLog, STILL_SETTLING, type StationReadings, unlessLacking } from "./station-readings";

const quantities = {
  "recordLevel.error": { name: "Record level error", unit: "dB", decimals: 2, signed: true },
  "recordLevel.meter": { name: "Error of the meter in record", unit: "dB", decimals: 2, signed: true },
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

const METER_READS_TO_DB = 0.25;

/** What the machine's meter shows while a tone goes in, dB, less the tone itself re the 0 that was set for the job. */
export function meterInRecord(
  {
    shownDb,
    source,
    zeroDbfs,
    c,
    channel,
  }: { shownDb: number; source: StoodAt; zeroDbfs: readonly number[]; c: number; channel: string },
  context: LogContext,
): Reading[] {
  const wentInDb = source.levelsDbfs[0][c] - (zeroDbfs[c] ?? zeroDbfs[0]);
  return readingsOfMoment(
    recordLevel,
    { ...context, channel },
    { seconds: 0, method: "the machine's meter re its 0, less what goes in re the 0 that was set" },
    [
      {
        quantity: "recordLevel.meter",
        value: shownDb - wentInDb,
        uncertainty: Math.hypot(source.uncertaintyDb, METER_READS_TO_DB),
      },
    ],
  );
}

/** Null where there are not both, of one tone. */
export function returnedOf(
  source: StoodAt | null,
  tape: StoodAt | null,
  channelCount: 1 | 2,
): Returned[] | null {
  if (!source || !tape) return null;
  const uncertaintyDb = Math.hypot(source.uncertaintyDb, tape.uncertaintyDb);
  const names = channelNames(channelCount);
  const returned = names.map((channel, c) => ({
    channel,
    errorDb: tape.levelsDbfs[0][c] - source.levelsDbfs[0][c],
    uncertaintyDb,
  }));
  return source.levelsDbfs[0].slice(0, names.length).every((level) => level > FAINTEST_DBFS)
    ? returned
    : null;
}

/**
 * Of a machine that has to be played back: the middle tone of the last pass less that of what went in. Without what went
 * in nothing is known of the level: how loud the sequence arrived at the machine nobody has heard.
 */
export function returnedByPasses(bench: OnTheBench): {
  returned: Returned[] | null;
  lacks: string | null;
  agoSeconds: number;
} {
  const { recorded, lacks } = recordedHere(bench);
  const last = recorded.at(-1);
  if (!last) return { returned: null, lacks, agoSeconds: 0 };
  const { pass, source, agoSeconds } = last;
  if (!source)
    return {
      returned: null,
      lacks: "What went in was not heard: record it again with Unzel listening to the source.",
      agoSeconds,
    };
  const names = channelNames(bench.here.machine.channels);
  const returned = names.flatMap((channel, c): Returned[] => {
    const [came, went] = [firstTone(pass, c), firstTone(source, c)];
    return came && went
      ? [
          {
            channel,
            errorDb: came.levelDb - went.levelDb,
            uncertaintyDb: Math.hypot(LEAST_UNCERTAINTY_DB, came.uncertaintyDb, went.uncertaintyDb),
          },
        ]
      : [];
  });
  return { returned: returned.length === names.length ? returned : null, lacks, agoSeconds };
}
const LEAST_UNCERTAINTY_DB = 0.05;

function firstTone({ segments }: ReturnedPass, c: number): { levelDb: number; uncertaintyDb: number } | null {
  const tone = heardOn(segments.at(0)?.channels ?? [], c);
  return tone?.kind === "sine" && tone.levelDb !== null
    ? { levelDb: tone.levelDb, uncertaintyDb: tone.uncertaintyDb }
    : null;
}

/** Why there is nothing to log yet; null when there is. */
function lacking(comparison: SourceAndTape | null, returned: Returned[] | null): string | null {
  if (!comparison || comparison.frequenciesHz.length === 0)
    return "No tone was heard yet: send one to the machine and record it.";
  if (!comparison.source) return "What goes in was not heard yet: switch the monitor to source for a moment.";
  if (!comparison.tape) return "What comes back was not heard yet: record, and switch the monitor to tape.";
  if (returned === null) return "What goes in is silent on a channel: raise the level, or find the lead.";
  return comparison.tape.settled ? null : STILL_SETTLING;
}

function readingsByPasses(bench: OnTheBench): StationReadings {
  const { returned, lacks, agoSeconds } = returnedByPasses(bench);
  if (!returned) return nothingToLog(lacks ?? "The level tone was not heard.");
  const readings = (context: LogContext) =>
    readingsOfMoment(
      recordLevel,
      { ...context, nominalHz: PASS_TONE_HZ, at: recordedAt(context.at, agoSeconds) },
      { seconds: 10, method: "level that came back less the level that went in, by passes" },
      returned.map(({ channel, errorDb, uncertaintyDb }) => ({
        quantity: "recordLevel.error",
        channel,
        value: errorDb,
        uncertainty: uncertaintyDb,
      })),
    );
  return unlessLacking(lacks, readings);
}
const PASS_TONE_HZ = 315;

export const recordLevel: MeasuringStation<"record-level", keyof typeof quantities> = {
  id: "record-level",
  kind: "measure",
  name: "Record level",
  short: "Rec level",
  group: "record",
  quantities,
  onRoute: recordsTape,
  deciding: () => ["recordLevel.error"],
  limitOf: (machine, quantity) => (quantity === "recordLevel.error" ? limitOf(machine) : null),
  ownLimits: [{ key: "recordLevelDb", label: "Own record level limit ±, dB", most: 20 }],
  corridorOf: () => null,
  apartBy: ["speed", "channel", "recordingOn"],
  circumstances: ["recordingOn"],
  adjusters: [{ kind: "turn", says: "turned, sets record level", actsOn: ["channel", "tapeType"] }],
  hears: {
    what: "source and tape",
    flutter: false,
    role: null,
    sequence: "record-level",
    follows: "any tone",
    steady: "level-tone",
  },
  tapeLacks: () => null,
  upsets: ["record-level", "distortion", "noise", "reduction", "settings"],
  readings: (bench) => {
    const { heard, here } = bench;
    const { machine } = here;
    if (!machine.monitorsTape) return readingsByPasses(bench);
    const comparison = heard?.comparison ?? null;
    const returned = (tape: StoodAt | null) => returnedOf(comparison?.source ?? null, tape, machine.channels);
    const now = returned(comparison?.tape ?? null);
    const why = notReady(bench) ?? lacking(comparison, now);
    if (!comparison || !now) return nothingToLog(why ?? "");
    const readings = (channels: Returned[]) => (context: LogContext) =>
      readingsOfMoment(
        recordLevel,
        { ...context, nominalHz: comparison.frequenciesHz[0] },
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
    const byPasses = here.machine.monitorsTape ? null : returnedByPasses(bench);
    const returned =
      byPasses?.returned ??
      returnedOf(comparison?.source ?? null, comparison?.tape ?? null, here.machine.channels);
    const settled = byPasses ? byPasses.lacks === null : (comparison?.tape?.settled ?? null);
    return adviseByNumber(
      bench,
      {
        station: recordLevel,
        quantity: "recordLevel.error",
        limit: limitOf(here.machine) ?? USUAL_LIMIT_DB,
        goodEnough: GOOD_ENOUGH_DB,
        live: ({ channel }) => {
          const own = returned ? ownChannel(returned, channel) : undefined;
          return own && settled !== null
            ? {
                value: own.errorDb,
                uncertainty: own.uncertaintyDb,
                settled,
                from: byPasses ? "passes" : "the tone off the tape",
              }
            : null;
        },
        hearFirst: (byPasses ? byPasses.lacks : lacking(comparison, returned)) ?? "",
      },
      chosen,
    );
  },
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn: "This machine has no record level trimmer written down.",
  setUp: [
    "Record a steady tone near 0 on the tape that will be used; the machine's meter tells where 0 is.",
    "Three heads: monitor the source for three seconds, then the tape; switch as often as you like.",
    "Two heads: record the record level sequence with Unzel listening to the source, then rewind and play.",
  ],
  checks: [],
  caution: MAINS,
};
