import { recordsTape, type Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { LEAST_DEPTH_UNCERTAINTY_DB } from "@/core/returned/returned";
import { PRESETS } from "@/core/signals/presets";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { nothingAdvised } from "./advised";
import { MAINS } from "./cautions";
import { BLANKING_METHOD, blankingFigures, blankingNow } from "./blanking";
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
  "erase.again": {
    name: "Erase depth after a second pass",
    unit: "dB",
    decimals: 1,
    signed: false,
    atLeast: true,
    scale: [20, 100],
  },
  "erase.blanking": {
    name: "Old programme goes down by",
    unit: "dB",
    decimals: 0,
    signed: false,
    atLeast: true,
    scale: [10, 80],
  },
  "erase.blankingFall": { name: "Goes quiet within", unit: "s", decimals: 1, signed: false, scale: [0, 5] },
} as const;
type EraseQuantity = keyof typeof quantities;

const SEQUENCE = PRESETS.find(({ id }) => id === "erase-and-noise")!;
/** So deep nothing is erased: the tone was never there. */
const UNHEARD_OF_DB = 100;

/** What is asked of one pass; how a programme goes down has no limit of its own, nor has a second pass. */
const limitOf = ({ limits, toleranceClass }: Machine, quantity: EraseQuantity): number | null =>
  quantity === "erase.depth" ? (limits.eraseDb ?? TOLERANCE_CLASSES[toleranceClass].eraseDb) : null;

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

export const erase: MeasuringStation<"erase", EraseQuantity> = {
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
    blanking: true,
  },
  tapeLacks: () => null,
  upsets: ["erase", "noise"],
  readings: (bench) => {
    const { eraseOf } = bench.circumstances;
    if (eraseOf === "blanking") {
      const { channels, lacks } = blankingNow(bench);
      return unlessLacking(lacks, (context) =>
        readingsOfMoment(
          erase,
          { ...context, nominalHz: TONE_HZ },
          { seconds: 10, method: BLANKING_METHOD },
          channels.flatMap(({ channel, heard }) => blankingFigures(channel, heard?.blanked ?? null)),
        ),
      );
    }
    const again = eraseOf === "again";
    const method = again ? AGAIN_METHOD : METHOD;
    const { channels, lacks, agoSeconds } = erasedNow(bench);
    if (channels.length === 0) return nothingToLog(lacks ?? "");
    const readings = (context: LogContext) =>
      readingsOfMoment(
        erase,
        { ...context, nominalHz: TONE_HZ, at: recordedAt(context.at, agoSeconds) },
        { seconds: 20, method },
        channels.map(
          ({ channel, depth }) =>
            depth && {
              quantity: again ? "erase.again" : "erase.depth",
              channel,
              value: depth.db,
              uncertainty: depth.uncertaintyDb,
              ...(depth.hidden && { method: `${method}; ${AT_LEAST}` }),
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
      uncertainty: Math.max(LEAST_DEPTH_UNCERTAINTY_DB, worst?.uncertaintyDb ?? 0),
      settled: lacks === null,
    });
  },
  seeksPeak: () => false,
  learns: () => [],
  nothingToTurn:
    "Erase depth comes of the oscillator, the erase head and the tape; there is no screw for it.",
  setUp: [
    "Record the tone to be erased on this tape, a minute and a half of it.",
    "Rewind, and record the erase sequence over it.",
    "Three heads: listen to the tape while it records. Two heads: rewind and play.",
    "A machine that records both ways: the same in the other direction, said on the left.",
    "Blanking test: an old recording, and record over a part of it with nothing going in. Monitor the tape, or play it afterwards.",
  ],
  checks: [],
  caution: MAINS,
};
/** Whether noise hid what was left when a depth was logged: it may be more. */
export const isAtLeast = ({ method }: Pick<Reading, "method">): boolean => method.endsWith(AT_LEAST);
const AT_LEAST = "at least that: noise hides what is left";
const TONE_HZ = 1000;
const METHOD = "1 kHz at +6 dB erased once, what is left by narrow filter";
const AGAIN_METHOD = "1 kHz at +6 dB erased twice, what is left by narrow filter";
