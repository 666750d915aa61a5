import { recordsTape, type Machine } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import {
  ZERO_DBFS,
  type ReturnedPass,
  type ReturnedStaircase,
  type ReturnedStep,
} from "@/core/returned/returned";
import { PRESETS } from "@/core/signals/presets";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { nothingAdvised } from "./advised";
import { MAINS } from "./cautions";
import { biasScrews } from "./bias-sides";
import { channelNames, heardOn } from "./channels";
import { readingsOfMoment, type Figure, type LogContext } from "./log-context";
import type { OnTheBench } from "./on-the-bench";
import { recordedAt, recordedHere, type Recorded } from "./recorded";
import type { MeasuringStation } from "./station";
import { nothingToLog, unlessLacking } from "./station-readings";

const quantities = {
  "distortion.third": { name: "Third harmonic at 0 level", unit: "%", decimals: 2, signed: false },
  "distortion.second": { name: "Second harmonic at 0 level", unit: "%", decimals: 2, signed: false },
  "distortion.thd": { name: "Total harmonic distortion at 0 level", unit: "%", decimals: 2, signed: false },
  "distortion.mol": { name: "Maximum output level, 3 %", unit: "dB", decimals: 1, signed: true },
  "distortion.sol": { name: "Treble saturation, 10 kHz", unit: "dB", decimals: 1, signed: true },
} as const;
type DistortionQuantity = keyof typeof quantities;

const SEQUENCE = PRESETS.find(({ id }) => id === "distortion")!;
/** Half a decibel of level is one of third harmonic: so well a share is known. */
const UNCERTAINTY_SHARE = 0.04;
const MOL_UNCERTAINTY_DB = 0.2;
const SAME_DB = 0.5;

const limitOf = ({ limits, toleranceClass }: Machine): number | null =>
  limits.thirdPercent ?? TOLERANCE_CLASSES[toleranceClass].thirdPercent;

/** A step whose third harmonic the sample rate holds. */
export type DistortionStep = ReturnedStep & { thirdPercent: number; thdPercent: number };

const showsThird = (step: ReturnedStep): step is DistortionStep =>
  step.thirdPercent !== null && step.thdPercent !== null;

/** The staircase of a channel as it came back, and as it went in where that was heard. */
export interface DistortionOf {
  channel: string;
  steps: DistortionStep[];
  sourceSteps: DistortionStep[];
  molDb: number | null;
  /** What a high tone comes back with at most, re 0 level; null where it was not heard to stop rising. */
  saturationDb: number | null;
  /** The step at 0 level. */
  zero: DistortionStep | null;
  sourceZero: DistortionStep | null;
}

export function distortionOf({ pass, source }: Recorded, channelCount: 1 | 2): DistortionOf[] {
  return channelNames(channelCount).flatMap((channel, c) => {
    const came = staircasesOf(pass, c);
    const middle = came.find(({ frequencyHz }) => frequencyHz < TREBLE_HZ);
    if (!middle) return [];
    const steps = middle.steps.filter(showsThird);
    const went = source && staircasesOf(source, c).find(({ frequencyHz }) => frequencyHz < TREBLE_HZ);
    const sourceSteps = went?.steps.filter(showsThird) ?? [];
    return [
      {
        channel,
        steps,
        sourceSteps,
        molDb: middle.molDb,
        saturationDb: came.find(({ frequencyHz }) => frequencyHz >= TREBLE_HZ)?.saturationDb ?? null,
        zero: atZero(steps),
        sourceZero: atZero(sourceSteps),
      },
    ];
  });
}

const TREBLE_HZ = 3000;

const staircasesOf = ({ segments }: ReturnedPass, c: number): ReturnedStaircase[] =>
  segments.flatMap(({ channels }) => {
    const own = heardOn(channels, c);
    return own?.kind === "staircase" ? [own] : [];
  });

const atZero = (steps: readonly DistortionStep[]): DistortionStep | null =>
  steps.find(({ sentDbfs }) => Math.abs(sentDbfs - ZERO_DBFS) < SAME_DB) ?? null;

/** The second harmonic at 0, percent; null where it was not heard, or noise hides it. */
export const secondPercentOf = (zero: DistortionStep | null): number | null =>
  zero?.harmonics.find(({ order, measurable }) => order === 2 && measurable)?.percent ?? null;

function secondFigure(channel: string, zero: DistortionStep | null): Figure<"distortion.second"> | null {
  const value = secondPercentOf(zero);
  return value === null
    ? null
    : { quantity: "distortion.second", channel, value, uncertainty: UNCERTAINTY_SHARE * value };
}

export const distortion: MeasuringStation<"distortion", DistortionQuantity> = {
  id: "distortion",
  kind: "measure",
  name: "Distortion",
  group: "record",
  quantities,
  onRoute: recordsTape,
  deciding: () => ["distortion.third"],
  limitOf: (machine, quantity) => (quantity === "distortion.third" ? limitOf(machine) : null),
  ownLimits: [{ key: "thirdPercent", label: "Own third harmonic limit, %", most: 30 }],
  corridorOf: () => null,
  apartBy: ["speed", "channel", "recordingOn"],
  circumstances: ["recordingOn"],
  adjusters: [{ kind: "work", says: "work, against distortion", actsOn: [] }],
  hears: { what: "sequence", flutter: false, role: null, sequence: SEQUENCE.id, follows: null, steady: null },
  tapeLacks: () => null,
  upsets: ["bias", "record-level", "record-response", "distortion", "noise", "reduction", "settings"],
  readings: (bench) => {
    const { recorded, lacks } = recordedHere(bench);
    const last = recorded.at(-1);
    if (!last) return nothingToLog(lacks ?? "");
    const channels = distortionOf(last, bench.here.machine.channels);
    const hidden = channels.find(({ zero }) => zero !== null && !zero.measurable);
    const why =
      lacks ??
      (channels.every(({ zero }) => zero === null)
        ? "The step at 0 level was not heard."
        : hidden
          ? `The third harmonic of the ${hidden.channel} channel is hidden in noise: at most ${hidden.zero!.thirdPercent.toFixed(2)} %.`
          : null);
    const readings = (context: LogContext): Reading[] =>
      readingsOfMoment(
        distortion,
        { ...context, nominalHz: TONE_HZ, at: recordedAt(context.at, last.agoSeconds) },
        { seconds: 4, method: "harmonics by order tracking, re the fundamental (IEC 60268-3)" },
        channels.flatMap(
          ({ channel, zero, molDb, saturationDb }): Array<Figure<DistortionQuantity> | null> => [
            secondFigure(channel, zero),
            zero && {
              quantity: "distortion.third",
              channel,
              value: zero.thirdPercent,
              uncertainty: UNCERTAINTY_SHARE * zero.thirdPercent,
            },
            zero && {
              quantity: "distortion.thd",
              channel,
              value: zero.thdPercent,
              uncertainty: UNCERTAINTY_SHARE * zero.thdPercent,
            },
            molDb === null
              ? null
              : { quantity: "distortion.mol", channel, value: molDb, uncertainty: MOL_UNCERTAINTY_DB },
            saturationDb === null
              ? null
              : {
                  quantity: "distortion.sol",
                  channel,
                  value: saturationDb,
                  uncertainty: MOL_UNCERTAINTY_DB,
                  nominalHz: 10_000,
                },
          ],
        ),
      );
    return unlessLacking(why, readings);
  },
  advise: (bench: OnTheBench) => {
    const { recorded, lacks } = recordedHere(bench);
    const last = recorded.at(-1);
    const worst = last
      ? distortionOf(last, bench.here.machine.channels)
          .flatMap(({ zero }) => zero ?? [])
          .toSorted((a, b) => b.thirdPercent - a.thirdPercent)
          .at(0)
      : undefined;
    return nothingAdvised({
      quantity: "distortion.third",
      value: worst?.thirdPercent ?? null,
      uncertainty: UNCERTAINTY_SHARE * (worst?.thirdPercent ?? 0),
      settled: lacks === null,
    });
  },
  seeksPeak: () => false,
  learns: (bench) => biasScrews({ ...bench, heard: null }),
  nothingToTurn:
    "Distortion is set by bias and record level; what is left of it is the amplifier, the head or the tape.",
  setUp: [
    "Set bias and record level first, for this tape.",
    "Send the distortion sequence: a tone that rises from −20 to +6 dB, and a high one until the tape takes no more.",
    "Three heads: monitor the source for one pass, then the tape. Two heads: record, rewind, play.",
  ],
  checks: [],
  caution: MAINS,
};
const TONE_HZ = 315;
