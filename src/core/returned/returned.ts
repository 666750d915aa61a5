import type { DropOut } from "@/core/measure/drop-outs";
import type { HumLine } from "@/core/measure/hum";
import type { WeightedNoise } from "@/core/measure/weighted-noise";
import type { OrderLine } from "@/core/measure/order-lines";
import type { SegmentKind } from "@/core/signals/sequence";

/** What came back of a tone that was sent on a channel. */
export interface ReturnedTone {
  kind: "sine";
  frequencyHz: number;
  /** Came back less sent, dB; null on a channel that nothing was sent on. */
  levelDb: number | null;
  uncertaintyDb: number;
  spreadDb: number;
  /** On the channel that nothing was sent on: what came across of the other, re that; null where it cannot be told. */
  crosstalkDb?: number | null;
  /** Where noise hides it: it is at most this; null where it is measured, or cannot be. */
  crosstalkAtMostDb?: number | null;
  /** Why it gives no figure, in words that go on from the name of its segment. */
  problem?: string | null;
  /** Third harmonic re the tone; at most that where noise hides it, null where the sample rate does not hold it. */
  thirdPercent: number | null;
  thirdMeasurable: boolean;
  clipped: boolean;
  /** Moments in which it was weaker, from its beginning in seconds as sent; null where it is too short or too low to tell. */
  dropOuts?: { seconds: number; events: DropOut[] } | null;
}

/** A point of a response, re the first sine of the same pass, at the frequency that was sent. */
export interface ReturnedPoint {
  frequencyHz: number;
  levelDb: number;
  spreadDb: number;
  uncertaintyDb: number;
  /** Of noise: the share of it that hangs together with what was sent. */
  coherence?: number;
}

export interface ReturnedCurve {
  kind: "steps" | "sweep" | "pink" | "white";
  points: ReturnedPoint[];
  /** The input clipped in it: what lies there is lower than what came back, nobody knows by how much. */
  clipped: boolean;
}

/** A step of a staircase. */
export interface ReturnedStep {
  sentDbfs: number;
  /** Came back less sent, dB. */
  levelDb: number;
  /** Null where the sample rate does not hold the third harmonic. */
  thirdPercent: number | null;
  thdPercent: number | null;
  /** From the second to the seventh. */
  harmonics: OrderLine[];
  /** The third stands out of the noise; else its figure is at most that. */
  measurable: boolean;
  clipped: boolean;
}

export interface ReturnedStaircase {
  kind: "staircase";
  frequencyHz: number;
  steps: ReturnedStep[];
  /** Sent level re 0 level at which the third harmonic reaches 3 %; null when it does not. */
  molDb: number | null;
  /** What comes back at most, re 0 level: sending more does not raise it; null when it still rises at the loudest step. */
  saturationDb: number | null;
}

export interface ReturnedTwoTone {
  kind: "two-tone";
  /** Modulation distortion of the upper tone by the lower one, IEC 60268-3. */
  intermodulationPercent: number;
  measurable: boolean;
  clipped: boolean;
}

export interface ReturnedSilence {
  kind: "silence";
  /** What is left of the tone that stood before it, re that tone; at most that where noise hides it, null where no tone did. */
  residualDb: number | null;
  residualUncertaintyDb: number | null;
  residualMeasurable: boolean;
  /** Null where it is too short. */
  noise: WeightedNoise | null;
  hum: HumLine[];
  /** Why nothing of it is measured, in a sentence: it is not steady; null where it is. */
  doubt: string | null;
}

export type Returned = ReturnedTone | ReturnedCurve | ReturnedStaircase | ReturnedTwoTone | ReturnedSilence;
export type ReturnedChannel = { channel: string } & Returned;

/** A segment of a sequence as it came back. */
export interface ReturnedSegment {
  /** Its place in the sequence, from 0. */
  index: number;
  kind: SegmentKind;
  startSeconds: number;
  endSeconds: number;
  channels: ReturnedChannel[];
}

export interface ReturnedPass {
  pass: number;
  segments: ReturnedSegment[];
}

/** Everything of a sequence that was found in a recording, measured re what was sent. */
export interface ReturnedSequence {
  passes: ReturnedPass[];
  /** Speed of what came back re what was sent; null where nothing was found. */
  speedFactor: number | null;
  warnings: string[];
}

/** ± of what is left of a tone re that tone, beside what noise makes of it: both levels, and the tape's own unevenness, dB. */
export const LEAST_DEPTH_UNCERTAINTY_DB = 0.5;

/** The machine's 0 is set to this level, dBFS, by the level tone of a sequence. */
export const ZERO_DBFS = -12;
