import { hertzText } from "@/core/text/number-text";
import type { SweepShape } from "@/core/measure/sweep-levels";

/** One thing that is played to Unzel: a band of a reference tape, or a sound of a sequence. */
export interface Section {
  kind: "tone" | "two-tone" | "sweep" | "noise" | "silence";
  /** What it was called by who made it. */
  name?: string;
  /** What it is for; other words than the usual ones are kept. */
  role?: string;
  /** Of a tone, or where a sweep begins; 0 for noise and silence. */
  frequencyHz: number;
  /** The other tone of two. */
  secondHz?: number;
  /** Where a sweep ends. */
  toFrequencyHz?: number;
  /** Relative to the reference fluxivity of a tape; of a sequence, to full scale. */
  levelDb: number;
  seconds: number;
  /** On one channel only; both when left out. */
  channels?: "both" | "left" | "right";
  frequencyErrorPercent?: number;
  /** What the certificate says it is off by, added to its level, and the ± at 95 % of that. */
  correctionDb?: { left: number; right: number };
  correctionUncertaintyDb?: number;
  /** What a head narrower than the recorded track reads too high, at long wavelengths. */
  fringingDb?: number;
}

/** What is played to Unzel, in its order. */
export interface Programme {
  kind: "tape" | "sequence";
  id: string;
  name: string;
  sections: readonly Section[];
  /** The marks that it carries; null for a programme without, which is told by its tones. */
  marks: ProgrammeMarks | null;
}

export interface ProgrammeMarks {
  /** Which of eight kinds of programme it says it is. */
  digit: number;
  /** From the beginning of each mark to that of the next, seconds at right speed. */
  apartSeconds: number[];
  /** Of each section: which mark stands before it, and how long after the beginning of that mark it begins. */
  places: Array<{ mark: number; afterSeconds: number }>;
}

/** The frequency that a tone really has at right speed, certificate counted in. */
export const certifiedFrequencyHz = ({ frequencyHz, frequencyErrorPercent = 0 }: Section): number =>
  frequencyHz * (1 + frequencyErrorPercent / 100);

/** The shape of a sweep. */
export const sweepShape = ({ frequencyHz, toFrequencyHz, seconds }: Section): SweepShape => ({
  frequencyHz,
  toFrequencyHz: toFrequencyHz!,
  seconds,
});

/** "1 kHz, −10 dB", or what it was called. */
export function sectionName(section: Section): string {
  const { name, kind, frequencyHz, secondHz, toFrequencyHz, levelDb } = section;
  if (name) return name;
  const hertz = (hz: number | undefined) => hertzText(hz ?? 0, 4);
  const level = levelDb === 0 ? "" : `, ${levelDb < 0 ? "−" : "+"}${Math.abs(levelDb)} dB`;
  switch (kind) {
    case "silence":
      return "silence";
    case "noise":
      return `noise${level}`;
    case "sweep":
      return `${hertz(frequencyHz)} to ${hertz(toFrequencyHz)}${level}`;
    case "two-tone":
      return `${hertz(frequencyHz)} and ${hertz(secondHz)}${level}`;
    case "tone":
      return `${hertz(frequencyHz)}${level}`;
  }
}
