import { amplitudeDb } from "@/core/dsp/decibels";
/**
 * Losses of short wavelengths on the playback side, dB, 0 or less. Lengths on the tape are in micrometres unless the name
 * says otherwise.
 */

/** Effective length of a gap over its mechanical one. */
const EFFECTIVE_GAP = 1.14;
/** Nulls are filled in by everything that is not ideal. */
const DEEPEST = 1e-3;

export const wavelengthMicrometres = (speedCmPerS: number, frequencyHz: number): number =>
  (1e4 * speedCmPerS) / frequencyHz;

const sincDb = (x: number): number =>
  amplitudeDb(Math.max(DEEPEST, x === 0 ? 1 : Math.abs(Math.sin(Math.PI * x) / (Math.PI * x))));

/** Tape held off the head by d: −54.6·d/λ. */
export const spacingLossDb = (spacing: number, wavelength: number): number => (-54.6 * spacing) / wavelength;

/** A gap g: 20·log₁₀|sinc(1.14·g/λ)|. */
export const gapLossDb = (gap: number, wavelength: number): number =>
  sincDb((EFFECTIVE_GAP * gap) / wavelength);

/** Shortest wavelength that a gap still plays: where its loss has the first null. */
export const gapNullMicrometres = (gap: number): number => EFFECTIVE_GAP * gap;

/** A gap tilted by α over a track of width w: 20·log₁₀|sinc(w·tan α/λ)|. */
export const azimuthLossDb = (tiltArcMinutes: number, trackWidthMm: number, wavelength: number): number =>
  sincDb((1000 * trackWidthMm * Math.tan((tiltArcMinutes * Math.PI) / 180 / 60)) / wavelength);

/** A coating of depth δ that is magnetised through: 20·log₁₀[(1 − e^(−2πδ/λ)) ÷ (2πδ/λ)]. */
export function coatingLossDb(depth: number, wavelength: number): number {
  const x = (2 * Math.PI * depth) / wavelength;
  return x === 0 ? 0 : amplitudeDb(-Math.expm1(-x) / x);
}
