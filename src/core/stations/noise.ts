import { recordsTape } from "@/core/records/machine";
import { PRESETS } from "@/core/signals/presets";
import { nothingAdvised } from "./advised";
import { MAINS } from "./cautions";
import { erasedHere, NOISE_UNCERTAINTY_DB, type ErasedHere } from "./erased";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { recordedAt } from "./recorded";
import type { MeasuringStation } from "./station";
import { nothingToLog, unlessLacking } from "./station-readings";

const quantities = {
  "noise.a": {
    name: "Noise re 0 level, A-weighted",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.flat": {
    name: "Noise re 0 level, 20 Hz to 20 kHz",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.itu468": {
    name: "Noise re 0 level, 468 quasi-peak",
    unit: "dB",
    decimals: 1,
    signed: true,
    scale: [-80, -20],
  },
  "noise.crosstalk": { name: "Crosstalk at 1 kHz", unit: "dB", decimals: 1, signed: true, scale: [-80, -20] },
} as const;
type NoiseQuantity = keyof typeof quantities;

const SEQUENCE = PRESETS.find(({ id }) => id === "erase-and-noise")!;

/** Noise and crosstalk of each channel of the last pass. */
export const noiseNow = (bench: OnTheBench): ErasedHere =>
  erasedHere(bench, (channels) =>
    channels.some(({ noise: heard }) => heard !== null)
      ? null
      : "Neither the silence nor the tones at 0 were heard long enough.",
  );

export const noise: MeasuringStation<"noise", NoiseQuantity> = {
  id: "noise",
  kind: "measure",
  name: "Noise",
  group: "record",
  quantities,
  onRoute: recordsTape,
  deciding: () => ["noise.a"],
  // what is good depends on the tape; a machine's own papers say
  limitOf: () => null,
  ownLimits: [],
  corridorOf: () => null,
  apartBy: ["speed", "channel", "recordingOn"],
  circumstances: ["recordingOn"],
  adjusters: [{ kind: "work", says: "work, against noise", actsOn: [] }],
  hears: { what: "sequence", flutter: false, role: null, sequence: SEQUENCE.id, follows: null, steady: null },
  tapeLacks: () => null,
  upsets: ["noise"],
  readings: (bench) => {
    const { channels, lacks, agoSeconds } = noiseNow(bench);
    if (channels.length === 0) return nothingToLog(lacks ?? "");
    const readings = (context: LogContext) =>
      readingsOfMoment(
        noise,
        { ...context, nominalHz: TONE_HZ, at: recordedAt(context.at, agoSeconds) },
        { seconds: 20, method: "recorded silence off the tape, re what comes back at 0" },
        channels.flatMap(
          ({
            channel,
            noise: heard,
            crosstalkDb,
            crosstalkUncertaintyDb,
          }): Array<Figure<NoiseQuantity> | null> => {
            const level = (quantity: NoiseQuantity, value: number | undefined) =>
              value === undefined ? null : { quantity, channel, value, uncertainty: NOISE_UNCERTAINTY_DB };
            return [
              level("noise.a", heard?.aDb),
              level("noise.flat", heard?.flatDb),
              level("noise.itu468", heard?.itu468Db),
              crosstalkDb === null
                ? null
                : {
                    quantity: "noise.crosstalk",
                    channel,
                    value: crosstalkDb,
                    uncertainty: crosstalkUncertaintyDb,
                  },
            ];
          },
        ),
      );
    return unlessLacking(lacks, readings);
  },
  advise: (bench) => {
    const { channels, lacks } = noiseNow(bench);
    const worst = channels.flatMap(({ noise: heard }) => heard?.aDb ?? []).toSorted((a, b) => b - a)[0];
    return nothingAdvised({
      quantity: "noise.a",
      value: worst ?? null,
      uncertainty: NOISE_UNCERTAINTY_DB,
      settled: lacks === null,
    });
  },
  seeksPeak: () => false,
  nothingToTurn: "Noise has no screw: magnetised heads, a noisy stage, hum and the tape make it.",
  setUp: [
    "Record the erase sequence on this tape: its silence tells noise, its tones on one side what comes across.",
    "Noise reduction off, input closed at the source's end.",
    "Three heads: listen to the tape while it records. Two heads: rewind and play.",
  ],
  checks: [],
  caution: MAINS,
};
const TONE_HZ = 1000;
