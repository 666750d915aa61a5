import { amplitudeDb, amplitudeOf } from "@/core/dsp/decibels";
export type FluxMethod = "ansi" | "din";

/** The same tape gets a figure so much higher by the DIN method of measuring short-circuit flux than by the ANSI one. */
const DIN_OVER_ANSI_DB = 0.8;

/** A fluxivity in nWb/m as the other method would call it. */
export function fluxivityBy(wanted: FluxMethod, nwbPerM: number, measuredBy: FluxMethod): number {
  if (wanted === measuredBy) return nwbPerM;
  return nwbPerM * amplitudeOf(wanted === "din" ? DIN_OVER_ANSI_DB : -DIN_OVER_ANSI_DB);
}

/** How far one fluxivity lies above another, dB, whatever methods the two were measured by. */
export function fluxivityDb(
  one: { nwbPerM: number; method: FluxMethod },
  other: { nwbPerM: number; method: FluxMethod },
): number {
  return amplitudeDb(
    fluxivityBy("ansi", one.nwbPerM, one.method) / fluxivityBy("ansi", other.nwbPerM, other.method),
  );
}
