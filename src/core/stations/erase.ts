import { recordsTape, type Machine } from "@/core/records/machine";
import { PRESETS } from "@/core/signals/presets";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { fixed } from "@/core/text/number-text";
import { nothingAdvised } from "./advised";
import { MAINS } from "./cautions";
import { erasedHere, type ErasedHere } from "./erased";
import { readingsOfMoment, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { recordedAt } from "./recorded";
import type { MeasuringStation } from "./station";
import { nothingToLog, unlessLacking } from "./station-readings";

const quantities = {
  "erase.depth": {
    name: "Erase depth",
    unit: "dB",
    decimals: 1,
    signed: false,
    atLeast: true,
    scale: [20, 100],
  },
} as const;

const SEQUENCE = PRESETS.find(({ id }) => id === "erase-and-noise")!;
/** Two machines that record one tone do not agree better. */
const LEAST_UNCERTAINTY_DB = 0.5;
/** So deep nothing is erased: the tone was never there. */
const UNHEARD_OF_DB = 100;

const limitOf = ({ limits, toleranceClass }: Machine): number =>
  limits.eraseDb ?? TOLERANCE_CLASSES[toleranceClass].eraseDb;

/** How deep each channel of the last pass was erased. */
export const erasedNow = (bench: OnTheBench): ErasedHere =>
  erasedHere(bench, (channels) => {
    const { recordingOn, toneWasOn } = bench.circumstances;
    const depths = channels.flatMap(({ depth }) => depth ?? []);
    if (depths.length < channels.length || channels.length === 0)
      return "The silence after the tone was not heard long enough.";
    const said = toneWasOn !== undefined && toneWasOn === (recordingOn ?? "");
    if (depths.some(({ hidden }) => hidden) && !said)
      return "Nothing of the tone is left above the noise, if it was there: record the tone to be erased first, the sequence over it, and say so.";
    return depths.some(({ db }) => db > UNHEARD_OF_DB)
      ? "Nothing is erased so deep: was there a tone at all?"
      : null;
  });

export const erase: MeasuringStation<"erase", keyof typeof quantities> = {
  id: "erase",
  kind: "measure",
  name: "Erase",
  group: "record",
  quantities,
  onRoute: recordsTape,
  deciding: () => ["erase.depth"],
  limitOf,
  ownLimits: [{ key: "eraseDb", label: "Own least erase depth, dB", most: 120 }],
  corridorOf: () => null,
  // each direction may have an erase head, or a place of it, of its own
  apartBy: ["speed", "side", "channel", "recordingOn"],
  circumstances: ["recordingOn", "side"],
  adjusters: [{ kind: "work", says: "work, on the erase side", actsOn: [] }],
  hears: {
    what: "sequence",
    flutter: false,
    role: null,
    sequence: SEQUENCE.id,
    follows: null,
    steady: "erase-tone",
  },
  tapeLacks: () => null,
  upsets: ["erase", "noise"],
  readings: (bench) => {
    const { channels, lacks, agoSeconds } = erasedNow(bench);
    if (channels.length === 0) return nothingToLog(lacks ?? "");
    const readings = (context: LogContext) =>
      readingsOfMoment(
        erase,
        { ...context, nominalHz: TONE_HZ, at: recordedAt(context.at, agoSeconds) },
        { seconds: 20, method: METHOD },
        channels.map(
          ({ channel, depth }) =>
            depth && {
              quantity: "erase.depth",
              channel,
              value: depth.db,
              uncertainty: Math.hypot(LEAST_UNCERTAINTY_DB, depth.uncertaintyDb),
              ...(depth.hidden && { method: `${METHOD}; at least that: noise hides what is left` }),
            },
        ),
      );
    return unlessLacking(lacks, readings);
  },
  advise: (bench) => {
    const { channels, lacks } = erasedNow(bench);
    const worst = channels.flatMap(({ depth }) => depth ?? []).toSorted((a, b) => a.db - b.db)[0];
    return nothingAdvised({
      quantity: "erase.depth",
      value: worst?.db ?? null,
      uncertainty: Math.hypot(LEAST_UNCERTAINTY_DB, worst?.uncertaintyDb ?? 0),
      settled: lacks === null,
    });
  },
  seeksPeak: () => false,
  nothingToTurn:
    "Erase depth comes of the oscillator, the erase head and the tape; there is no screw for it.",
  setUp: [
    "Record the tone to be erased on this tape, a minute and a half of it.",
    "Rewind, and record the erase sequence over it.",
    "Three heads: listen to the tape while it records. Two heads: rewind and play.",
    "A machine that records both ways: the same in the other direction, said on the left.",
  ],
  checks: [],
  caution: MAINS,
};
const TONE_HZ = 1000;
const METHOD = "1 kHz at +6 dB erased once, what is left by narrow filter";

/**
 * What a pattern of erase depths usually means, the likeliest first; none where nothing is short.
 * @param others as logged on the job's other tapes, @param beforeDb as logged on this one
 */
export function eraseCauses(
  channels: ReadonlyArray<{ channel: string; db: number }>,
  others: ReadonlyArray<{ name: string; db: number }>,
  beforeDb: number | null,
  leastDb: number,
): string[] {
  const short = channels.filter(({ db }) => db < leastDb);
  if (short.length === 0) return [];
  const [one, other] = channels;
  const apart = other ? Math.abs(one.db - other.db) : 0;
  // where this tape was erased well before, the others tell nothing: the machine has changed since
  const hasChanged = beforeDb !== null && beforeDb >= leastDb;
  const better = hasChanged ? [] : others.filter(({ db }) => db >= leastDb);
  return [
    ...(apart > APART_DB
      ? [
          `The ${one.db < other.db ? one.channel : other.channel} channel is ${fixed(apart, 0)} dB worse than the other: the erase head is dirty, too low or too high, or worn on that track.`,
        ]
      : []),
    ...(better.length > 0
      ? [
          `On ${better.map(({ name }) => name).join(", ")} it is deep enough: this tape is too strong for this machine.`,
        ]
      : []),
    ...(apart <= APART_DB && better.length === 0
      ? [
          `${hasChanged ? `It was ${fixed(beforeDb, 0)} dB before on this tape. ` : ""}Both channels alike: look at the oscillator's amplitude first, with a meter at the erase head, then clean the erase head, then its contacts.`,
        ]
      : []),
  ];
}
const APART_DB = 8;
