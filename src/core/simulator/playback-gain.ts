import { amplitudeOf } from "@/core/dsp/decibels";
import type { TransportParameters } from "./transport-parameters";

/** sin πx ÷ πx */
const sinc = (x: number): number => (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));

/** Effective gap length over the mechanical one. */
const EFFECTIVE_GAP = 1.14;
const ARC_MINUTE = Math.PI / 180 / 60;
/** The nulls of gap and azimuth are filled in a little by everything that is not ideal. */
const LEAST = 1e-3;

export interface Equalisation {
  t1Microseconds: number;
  t2Microseconds: number;
}

/** Of the head with what is across it; the amplifier is built for a resonance as broad as that. */
const RESONANCE_Q = 1.5;

const resonanceGain = (f0Hz: number, hz: number): number =>
  f0Hz === 0 ? 1 : 1 / Math.hypot(1 - (hz / f0Hz) ** 2, hz / f0Hz / RESONANCE_Q);

/**
 * Gain of the treble path of the playback side at one frequency, as an amplitude ratio: spacing loss 54.6·d/λ dB,
 * gap loss |sinc(1.14·g/λ)| over that of the gap the amplifier was built for, azimuth loss |sinc(w·tan α/λ)| on
 * each track, the second time constant of the tape over that of the machine, and the resonance of the head with its
 * capacitance over the one that the amplifier expects.
 */
export function trebleGain(parameters: TransportParameters, tape: Equalisation, frequencyHz: number): number {
  const wavelengthMm = (10 * parameters.speedCmPerS) / frequencyHz;
  const micro = 1e-3 / wavelengthMm;
  const spacing = amplitudeOf(-54.6 * parameters["head.spacingMicrometres"] * micro);
  const gapAt = (gapMicrometres: number) =>
    Math.max(LEAST, Math.abs(sinc(EFFECTIVE_GAP * gapMicrometres * micro)));
  const gap = gapAt(parameters["head.gapMicrometres"]) / gapAt(parameters["head.builtForGapMicrometres"]);
  const tilt = Math.tan(parameters["head.azimuthArcMinutes"] * ARC_MINUTE);
  const azimuth = Math.max(
    LEAST,
    Math.abs(sinc((parameters["head.trackWidthMm"] * Math.abs(tilt)) / wavelengthMm)),
  );
  const shelf = (t2Microseconds: number) => Math.hypot(1, 2 * Math.PI * frequencyHz * t2Microseconds * 1e-6);
  const equalisation = shelf(parameters["playback.t2Microseconds"]) / shelf(tape.t2Microseconds);
  const resonance =
    resonanceGain(parameters["head.resonanceHz"], frequencyHz) /
    resonanceGain(parameters["head.builtForResonanceHz"], frequencyHz);
  return spacing * gap * azimuth * equalisation * resonance;
}

/** How much later the right channel is, in seconds: d·tan α ÷ v. */
export const azimuthDelay = (
  parameters: TransportParameters,
  tiltArcMinutes = parameters["head.azimuthArcMinutes"],
): number =>
  (parameters["head.trackSpacingMm"] * Math.tan(tiltArcMinutes * ARC_MINUTE)) / (10 * parameters.speedCmPerS);
