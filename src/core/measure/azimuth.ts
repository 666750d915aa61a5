import { amplitudeDb } from "@/core/dsp/decibels";
import { fitThroughOrigin } from "./delay-fit";

/** One tone of the ladder. */
export interface LadderTone {
  frequencyHz: number;
  phaseDegrees: number;
  spreadDegrees: number;
  coherence: number;
  /** ± at 95 % of the phase. */
  uncertaintyDegrees: number;
  /** Both channels are one signal; they are not when left out. */
  isMono?: boolean;
  /** Left less right; both as loud when left out. */
  balanceDb?: number;
}

/** Where the two tracks of a stereo head sit. */
export interface HeadGeometry {
  /** Centre to centre. */
  spacingMm: number;
  speedCmPerS: number;
}

export interface Azimuth {
  /** How much later the right channel is; null when a whole cycle is not known. */
  delaySeconds: number | null;
  /** ± at 95 %. */
  delayUncertaintySeconds: number | null;
  /** Tilt of the gap, arc-minutes. */
  tiltArcMinutes: number | null;
  resolved: boolean;
  /** Why it is not resolved, for the technician; null when it is. */
  doubt: string | null;
}

/** Gaps are taken to be within this of upright; a lowest tone that repeats within it cannot start a ladder. */
const LARGEST_TILT_DEGREES = 1.2;
const LEAST_RANGE_SECONDS = 0.34e-3;
/** What the channels' amplifiers and the tape itself may differ by in phase, standard deviation. */
const CHANNEL_MATCH_DEGREES = 4;
/** Slow weave makes tones that were played one after the other disagree by a share of what each one wanders. */
const WEAVE_SHARE = 0.3;
const LEAST_COHERENCE = 0.5;
const WORST_FIT = 6;
/** So much worse (in χ²) every other number of cycles has to be. */
const CLEARLY_WORSE = 20;

/** Crosstalk of a head is some 25 to 40 dB down: a channel weaker than this is too much of the other one. */
const WEAKEST_CHANNEL_DB = 14;
/** Whether what each channel gave of a tone is its own. */
export const heardInBoth = ({ balanceDb = 0 }: Pick<LadderTone, "balanceDb">): boolean =>
  Math.abs(balanceDb) <= WEAKEST_CHANNEL_DB;

/**
 * The delay between two tracks from the phases of several tones. A tone tells the delay only up to whole cycles, so
 * every delay within reach is tried on all of them at once, each phase weighed by what it may be wrong by; it is
 * resolved when one number of cycles fits and every other is clearly worse.
 * Δt = d·tan α ÷ v, φ = 360°·f·Δt.
 */
export function azimuthOf(tones: LadderTone[], { spacingMm, speedCmPerS }: HeadGeometry): Azimuth {
  const together = tones.filter(({ coherence }) => coherence >= LEAST_COHERENCE);
  const used = together.filter(heardInBoth);
  const unresolved = (doubt: string): Azimuth => ({
    delaySeconds: null,
    delayUncertaintySeconds: null,
    tiltArcMinutes: null,
    resolved: false,
    doubt,
  });
  if (used.length > 0 && used.every(({ isMono = false }) => isMono)) return unresolved(MONO_INPUT);
  if (used.length === 0 && together.length > 0) {
    const off = Math.min(...together.map(({ balanceDb = 0 }) => Math.abs(balanceDb)));
    const weaker = (together[0].balanceDb ?? 0) > 0 ? "right" : "left";
    return unresolved(
      `The ${weaker} channel is silent, or ${off.toFixed(0)} dB weaker than the other: what is heard on it may be the other one's crosstalk. Find out why first; phase tells nothing here.`,
    );
  }
  if (used.length === 0)
    return unresolved(
      tones.length === 0 ? "No tone was heard in both channels." : "The two channels have nothing in common.",
    );
  const perSecond = (spacingMm * 1e-3) / (speedCmPerS * 1e-2);
  const range = Math.max(LEAST_RANGE_SECONDS, perSecond * Math.tan((LARGEST_TILT_DEGREES * Math.PI) / 180));
  const weighed = used.map((tone) => ({
    ...tone,
    sigmaDegrees: Math.hypot(
      tone.uncertaintyDegrees / 2,
      WEAVE_SHARE * tone.spreadDegrees,
      CHANNEL_MATCH_DEGREES,
    ),
  }));
  const [best, second] = fitThroughOrigin(weighed, range);
  if (best.chiSquare > WORST_FIT * Math.max(1, used.length - 1))
    return unresolved("The phases of the tones do not lie on one line: no single delay explains them.");
  if (second && second.chiSquare - best.chiSquare < CLEARLY_WORSE) {
    const lowest = Math.min(...used.map(({ frequencyHz }) => frequencyHz));
    return unresolved(
      lowest > 0.5 / range
        ? `The lowest tone, ${Math.round(lowest)} Hz, repeats too often to count cycles from. Play a lower one.`
        : "Another number of cycles would fit nearly as well. Play a tone between those that were heard.",
    );
  }
  return {
    delaySeconds: best.delaySeconds,
    delayUncertaintySeconds: 2 * best.sigmaSeconds,
    tiltArcMinutes: tiltOf(best.delaySeconds, { spacingMm, speedCmPerS }),
    resolved: true,
    doubt: null,
  };
}

export const MONO_INPUT =
  "Both channels carry the same signal, noise included: the input is mono. Connect both channels of the machine.";

/** Tilt of the gap in arc-minutes that makes a delay, tan α = Δt·v ÷ d. */
export const tiltOf = (delaySeconds: number, { spacingMm, speedCmPerS }: HeadGeometry): number =>
  (Math.atan((delaySeconds * speedCmPerS * 10) / spacingMm) * 180 * 60) / Math.PI;

/** What a delay does to a tone when the channels are added, dB: 20·log₁₀|cos(φ/2)|, 0 or less. */
export const monoSumDb = (delaySeconds: number, frequencyHz: number): number =>
  amplitudeDb(Math.max(1e-6, Math.abs(Math.cos(Math.PI * frequencyHz * delaySeconds))));
