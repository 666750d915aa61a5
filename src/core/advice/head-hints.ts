import { verdictOf } from "@/core/judging/verdict";

/** What the phase wanders by at 10 kHz on a sound cassette transport, degrees: one capstan lets the tape weave more. */
const USUAL_WANDER_DEGREES = { one: 12, two: 5 };
const CASSETTE_CM_PER_S = 4.76;

/** Largest wander (standard deviation at 10 kHz, degrees) that a transport of its kind should have. */
export const usualWander = (dualCapstan: boolean, speedCmPerS: number): number =>
  (USUAL_WANDER_DEGREES[dualCapstan ? "two" : "one"] * CASSETTE_CM_PER_S) / speedCmPerS;

/** What the two channels say of how the head stands. */
export interface HeadSigns {
  /** Level of left less right in the middle of the range, dB; null when it was not heard. */
  middleBalanceDb: number | null;
  /** The same in the treble. */
  trebleBalanceDb: number | null;
  /** Standard deviation of the treble's level in each channel, dB. */
  trebleSpreadDb: readonly [number, number] | null;
  /** Standard deviation of the phase at 10 kHz, degrees. */
  wanderDegrees: number | null;
  /** What a transport of its kind may wander by. */
  usualWanderDegrees: number;
  /** Middle balance in the other direction, dB, where the machine has one and it was logged. */
  otherMiddleBalanceDb: number | null;
}

export interface HeadHint {
  fault: "zenith" | "height" | "guides" | "contact";
  because: string;
  tryFirst: string;
}

const DULL_DB = 3;
const LOW_DB = 2;
const UNSTEADY_DB = 0.6;
const MORE = 2;

/** What the levels and the phase of two channels hint at, the strongest first; empty for a head that stands well. */
export function headHints(signs: HeadSigns): HeadHint[] {
  const { middleBalanceDb: middle, trebleBalanceDb: treble, trebleSpreadDb: spread } = signs;
  const { wanderDegrees, usualWanderDegrees, otherMiddleBalanceDb: other } = signs;
  const hints: HeadHint[] = [];
  const side = (balance: number) => (balance > 0 ? "right" : "left");
  const restless =
    wanderDegrees !== null && verdictOf(wanderDegrees, 0.1 * wanderDegrees, usualWanderDegrees) === "fail";
  if (middle !== null && treble !== null && Math.abs(treble - middle) > DULL_DB)
    hints.push({
      fault: "zenith",
      because: `the ${side(treble - middle)} channel loses ${Math.abs(treble - middle).toFixed(1)} dB more treble than the other`,
      tryFirst:
        "Clean that half of the head; then see whether the tape bears on it evenly: zenith, worn step.",
    });
  if (
    middle !== null &&
    Math.abs(middle) > LOW_DB &&
    (treble === null || Math.abs(treble - middle) < DULL_DB)
  ) {
    const turnsOver = other !== null && other * middle < 0 && Math.abs(other) > LOW_DB;
    if (turnsOver || other === null)
      hints.push({
        fault: "height",
        because: turnsOver
          ? `the ${side(middle)} channel is low here and the other one low in the other direction`
          : `the ${side(middle)} channel is ${Math.abs(middle).toFixed(1)} dB low at every frequency`,
        tryFirst: "Gauge the height of the head and guides before the level trimmer makes up for it.",
      });
  }
  if (restless)
    hints.push({
      fault: "guides",
      because: `the phase wanders by ±${wanderDegrees.toFixed(0)}°; ±${usualWanderDegrees.toFixed(0)}° is usual for this transport`,
      tryFirst: "Watch the tape's edge at the guides; guide height, a worn shell, take-up tension.",
    });
  const unsteady = spread && Math.max(...spread) > Math.max(UNSTEADY_DB, MORE * Math.min(...spread));
  if (unsteady)
    hints.push({
      fault: "contact",
      because: `the treble of the ${spread[0] > spread[1] ? "left" : "right"} channel comes and goes by ±${Math.max(...spread).toFixed(1)} dB`,
      tryFirst:
        "Clean the head and its pad or guides; if the low bands come and go too, the contacts of that channel.",
    });
  return hints;
}
