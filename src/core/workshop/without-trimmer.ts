import type { MachinePart } from "./machine-part";

/** What would bring the speed right on a machine that has nothing to turn. */
export interface PulleyAdvice {
  motorPulleyMm: number;
  /** The pulley that would run at the right speed. */
  neededPulleyMm: number;
  /** By how much thicker (or, negative, thinner) the belt would have to be instead. */
  thickerBeltMm: number;
}

/** Motor pulley of a belt drive: what the belt runs on at the other end, from the diameters and the ratio. */
export function motorPulleyOf(
  parts: MachinePart[],
): { motorPulleyMm: number; drivenPulleyMm: number } | null {
  for (const belt of parts) {
    if (!("beltLengthMm" in belt)) continue;
    const motor = parts.find((part) => "ratioTo" in part && part.ratioTo === belt.pulleyPart);
    if (motor && "ratio" in motor && motor.ratio > 1)
      return { motorPulleyMm: belt.pulleyDiameterMm / motor.ratio, drivenPulleyMm: belt.pulleyDiameterMm };
  }
  return null;
}

/**
 * A machine that runs `errorPercent` off needs its motor pulley larger by as much the other way; or a belt that is
 * thicker by e / (1/d − 1/D).
 */
export function withoutTrimmer(errorPercent: number, parts: MachinePart[]): PulleyAdvice | null {
  const drive = motorPulleyOf(parts);
  if (drive === null) return null;
  const { motorPulleyMm: d, drivenPulleyMm: D } = drive;
  const factor = 1 / (1 + errorPercent / 100);
  return {
    motorPulleyMm: d,
    neededPulleyMm: d * factor,
    thickerBeltMm: (factor - 1) / (1 / d - 1 / D),
  };
}
