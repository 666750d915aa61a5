import { powerDb } from "@/core/dsp/decibels";
/** Time constants of an equalisation in microseconds; no first one is 0. */
export interface TimeConstants {
  t1Microseconds: number;
  t2Microseconds: number;
}

/** Equalisations in use (IEC 60094-1, NAB 1965, AES/IEC2). */
export const EQUALISATIONS: ReadonlyArray<TimeConstants & { id: string; use: string }> = [
  { id: "3180/120", use: "cassette type I", t1Microseconds: 3180, t2Microseconds: 120 },
  { id: "3180/70", use: "cassette type II, III, IV", t1Microseconds: 3180, t2Microseconds: 70 },
  { id: "3180/90", use: "9.53 cm/s, IEC and NAB", t1Microseconds: 3180, t2Microseconds: 90 },
  { id: "3180/50", use: "19.05 and 38.1 cm/s, NAB", t1Microseconds: 3180, t2Microseconds: 50 },
  { id: "0/70", use: "19.05 cm/s, IEC", t1Microseconds: 0, t2Microseconds: 70 },
  { id: "0/35", use: "38.1 cm/s, IEC", t1Microseconds: 0, t2Microseconds: 35 },
  { id: "0/17.5", use: "76.2 cm/s, AES and IEC2", t1Microseconds: 0, t2Microseconds: 17.5 },
];

/** Recorded flux for constant input in dB: 10·log₁₀(1 + 1/(ωt₁)²) − 10·log₁₀(1 + (ωt₂)²). */
export function fluxDb({ t1Microseconds, t2Microseconds }: TimeConstants, frequencyHz: number): number {
  const omega = 2 * Math.PI * frequencyHz * 1e-6;
  const low = t1Microseconds > 0 ? powerDb(1 + 1 / (omega * t1Microseconds) ** 2) : 0;
  return low - powerDb(1 + (omega * t2Microseconds) ** 2);
}

/** What a machine of one equalisation gives from a tape of another, dB re the reference frequency. */
export function playedWithDb(
  tape: TimeConstants,
  machine: TimeConstants,
  frequencyHz: number,
  referenceHz: number,
): number {
  const at = (hz: number) => fluxDb(tape, hz) - fluxDb(machine, hz);
  return at(frequencyHz) - at(referenceHz);
}
