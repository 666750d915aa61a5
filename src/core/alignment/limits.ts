import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import type { FlutterMeter, Machine, Quantity } from "./records";
import { frequencyUncertaintyOf, type ReferenceTape } from "@/core/reference/reference-tape";

export const primaryFlutter = (meter: FlutterMeter): Quantity => `flutter.weighted.${meter}`;

/** The largest magnitude that passes, in percent, or null where a machine has no limit for the quantity. */
export function limitFor(machine: Machine, quantity: Quantity): number | null {
  const house = TOLERANCE_CLASSES[machine.toleranceClass];
  if (quantity === "speedError") return machine.limits.speedErrorPercent ?? house.speedErrorPercent;
  if (quantity !== primaryFlutter(machine.flutterMeter)) return null;
  // the classes are written in weighted peak; a machine judged by another meter needs a limit of its own
  return (
    machine.limits.flutterPercent ??
    (machine.flutterMeter === "peak" ? house.weightedPeakFlutterPercent : null)
  );
}

/** The tone for speed and flutter on a tape: the band of that role, or the longest tone. Null if there is none. */
export function speedTone(tape: ReferenceTape): { frequencyHz: number; bandNumber: number } | null {
  const tones = tape.bands
    .map((band, i) => ({ band, bandNumber: i + 1 }))
    .filter(({ band }) => band.kind === "tone");
  const chosen =
    tones.find(({ band }) => band.role === "speed") ??
    tones.sort((a, b) => b.band.seconds - a.band.seconds)[0];
  if (!chosen) return null;
  const { frequencyHz, frequencyErrorPercent = 0 } = chosen.band;
  return { frequencyHz: frequencyHz * (1 + frequencyErrorPercent / 100), bandNumber: chosen.bandNumber };
}

/** The tapes of a speed that have a band for measuring speed, those whose frequencies are known best first. */
export function tapesForSpeed(tapes: readonly ReferenceTape[], speedCmPerS: number): ReferenceTape[] {
  return tapes
    .filter(
      (tape) =>
        tape.speedCmPerS === speedCmPerS &&
        tape.bands.some(({ kind, role }) => kind === "tone" && role === "speed"),
    )
    .sort((a, b) => frequencyUncertaintyOf(a) - frequencyUncertaintyOf(b) || a.name.localeCompare(b.name));
}
