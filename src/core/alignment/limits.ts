import { TOLERANCE_CLASSES, type Corridor, type Tolerances } from "@/core/standards/tolerance-classes";
import type { Quantity } from "./quantities";
import type { FlutterMeter, Machine } from "./records";
import { frequencyUncertaintyOf, type ReferenceTape } from "@/core/reference/reference-tape";

export const primaryFlutter = (meter: FlutterMeter): Quantity => `flutter.weighted.${meter}`;

/** The largest magnitude that passes, in the quantity's unit, or null where a machine has no limit for it. */
export function limitFor(machine: Machine, quantity: Quantity): number | null {
  const house: Tolerances = TOLERANCE_CLASSES[machine.toleranceClass];
  const { limits } = machine;
  switch (quantity) {
    case "speedError":
      return limits.speedErrorPercent ?? house.speedErrorPercent;
    case "azimuth.phase":
      return limits.azimuthDegrees ?? house.azimuthDegrees;
    case "azimuth.belowPeak":
      return house.belowPeakDb;
    case "level.error":
    case "level.balance":
      return limits.balanceDb ?? house.balanceDb;
    case "response.worst":
      return corridorOf(machine).db;
    case primaryFlutter(machine.flutterMeter):
      // the classes are written in weighted peak; a machine judged by another meter needs a limit of its own
      return (
        limits.flutterPercent ?? (machine.flutterMeter === "peak" ? house.weightedPeakFlutterPercent : null)
      );
    default:
      return null;
  }
}

/** What the response of a machine has to stay within. */
export function corridorOf({ toleranceClass, limits }: Machine): Corridor {
  const house: Corridor = TOLERANCE_CLASSES[toleranceClass].response;
  return { ...house, db: limits.responseDb ?? house.db };
}

/** Whether azimuth is set by the phase of two channels; by the loudest point where there is one, or no limit for phase. */
export const azimuthByPhase = (machine: Machine): boolean =>
  machine.channels !== 1 && limitFor(machine, "azimuth.phase") !== null;

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
