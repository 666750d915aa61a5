import * as z from "@/core/text/zod";
import type { TimeConstants } from "@/core/standards/equalisation";

const percent = z.number().min(0).max(100);
const line = z.string().max(200);
const decibels = z.number().min(-60).max(60);

export const BAND_KINDS = ["tone", "sweep", "noise", "silence"] as const;
export const BAND_ROLES = ["speed", "level", "azimuth", "response"] as const;

/** One section of a reference tape, in playing order. */
export const bandSchema = z
  .object({
    kind: z.enum(BAND_KINDS),
    /** What the band is for; other words than the usual ones are kept. */
    role: z.string().max(40).optional(),
    /** Of a tone, or where a sweep begins; 0 for noise and silence. */
    frequencyHz: z.number().min(0).max(30_000).default(0),
    toFrequencyHz: z.number().min(10).max(30_000).optional(),
    /** Relative to the tape's reference fluxivity. */
    levelDb: z.number().min(-120).max(40),
    seconds: z.number().positive().max(36_000),
    /** What the certificate says the band is off by, added to its level. */
    correctionDb: z.object({ left: decibels, right: decibels }).optional(),
    /** ± at 95 % of that correction. */
    correctionUncertaintyDb: z.number().min(0).max(20).optional(),
    frequencyErrorPercent: z.number().min(-20).max(20).optional(),
    /** What a head narrower than the recorded track reads too high, at long wavelengths. */
    fringingDb: z.number().min(-10).max(10).optional(),
  })
  .refine(({ kind, frequencyHz }) => kind === "noise" || kind === "silence" || frequencyHz >= 10, {
    path: ["frequencyHz"],
    message: "a tone or sweep needs a frequency from 10 to 30000 Hz",
  })
  .refine(({ kind, toFrequencyHz }) => kind !== "sweep" || toFrequencyHz !== undefined, {
    path: ["toFrequencyHz"],
    message: "a sweep needs the frequency that it ends at",
  });
export type Band = z.infer<typeof bandSchema>;

/** Who made a tape on which machine, and how that machine was checked. */
export const makingSchema = z.object({
  by: line,
  machine: line,
  howChecked: line,
  /** ± at 95 %: what is not known of the maker deck's speed. */
  speedUncertaintyPercent: percent,
});

export const TAPE_CONDITIONS = ["good", "worn", "suspect"] as const;

export const referenceTapeSchema = z.object({
  format: z.literal("unzel-reference-tape"),
  version: z.literal(1),
  id: z.string().min(1).max(80),
  name: z.string().trim().min(1, "Give it a name.").max(200),
  speedCmPerS: z.number().min(1).max(100),
  /** Time constants in microseconds, as "3180/120"; "0" or "∞" for none at the low end. */
  equalisation: z.string().max(40).optional(),
  fluxivityNwbPerM: z.number().positive().max(2000).optional(),
  fluxivityMethod: z.enum(["ansi", "din"]).optional(),
  trackWidthMm: z.number().positive().max(30).optional(),
  /** ± at 95 %; 0.3 when there is no certificate, 1 or more for a tape made on an unknown deck. */
  frequencyUncertaintyPercent: percent.default(0.3),
  making: makingSchema.optional(),
  plays: z.number().int().min(0).max(1_000_000).optional(),
  condition: z.enum(TAPE_CONDITIONS).optional(),
  notes: z.string().max(20_000).optional(),
  bands: z.array(bandSchema).min(1, "a tape needs at least one band").max(200),
});
/** The numbers of a tape and of a band, for tables and forms. */
export const TAPE_NUMBERS = [
  "speedCmPerS",
  "fluxivityNwbPerM",
  "trackWidthMm",
  "frequencyUncertaintyPercent",
  "plays",
] as const;
export const BAND_NUMBERS = [
  "frequencyHz",
  "toFrequencyHz",
  "levelDb",
  "seconds",
  "correctionUncertaintyDb",
  "frequencyErrorPercent",
  "fringingDb",
] as const;
export type ReferenceTape = z.infer<typeof referenceTapeSchema>;

/**
 * How well the frequencies of a tape are known, ± percent at 95 %: a home-made one is no better than the deck
 * that made it.
 */
export const frequencyUncertaintyOf = (tape: ReferenceTape): number =>
  Math.hypot(tape.frequencyUncertaintyPercent, tape.making?.speedUncertaintyPercent ?? 0);

/** The same as a short number: "0.3". */
export const uncertaintyText = (tape: ReferenceTape): string =>
  String(Number(frequencyUncertaintyOf(tape).toPrecision(2)));

/**
 * Time constants in microseconds of an equalisation written "3180/120", 0 standing for none; without one, the usual
 * of the tape speed (IEC 60094-1).
 */
export function timeConstants(equalisation: string | undefined, speedCmPerS: number): TimeConstants {
  const [first, second] = (equalisation ?? "")
    .split("/")
    .map((part) => Number(part.replace("∞", "0").trim()));
  if (first >= 0 && second > 0) return { t1Microseconds: first, t2Microseconds: second };
  if (speedCmPerS < 7) return { t1Microseconds: 3180, t2Microseconds: 120 };
  if (speedCmPerS < 15) return { t1Microseconds: 3180, t2Microseconds: 90 };
  return { t1Microseconds: 0, t2Microseconds: speedCmPerS < 30 ? 70 : 35 };
}
