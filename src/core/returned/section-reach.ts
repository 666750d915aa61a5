import { NOISE_BANDS_TO_HZ } from "@/core/measure/noise-bands";
import { humMatters } from "@/core/measure/tone-band-meter";
import { WEIGHTED_TO_HZ } from "@/core/measure/weighted-noise";
import type { Section } from "@/core/programme/programme";

/** Around a low tone and a sweep hum is learned, and a sweep may lie off its mark; little of the rest is wanted. */
const AROUND_SECONDS = 5;
const LITTLE_AROUND_SECONDS = 0.5;
/** The place of a sweep is known to some percent of its frequency; what is left of a tone is looked for around it. */
const SWEEP_REACH = 1.05;
const TONE_REACH = 1.1;

/** How much of what is around a sound is measured with it, seconds. */
export function aroundSeconds({ kind, frequencyHz }: Section, speedRatio: number): number {
  switch (kind) {
    case "tone":
      return humMatters(frequencyHz * speedRatio) ? AROUND_SECONDS : LITTLE_AROUND_SECONDS;
    case "sweep":
      return AROUND_SECONDS;
    case "two-tone":
    case "noise":
    case "silence":
      return LITTLE_AROUND_SECONDS;
  }
}

/**
 * The highest frequency that is measured in a sound as it came back; without end where tops that are cut off and
 * harmonics tell something.
 */
export function highestHz(
  { kind, frequencyHz, toFrequencyHz = frequencyHz }: Section,
  { speedRatio, toneBeforeHz }: { speedRatio: number; toneBeforeHz: number | null },
): number {
  switch (kind) {
    case "tone":
    case "two-tone":
      return Infinity;
    case "sweep":
      return SWEEP_REACH * Math.max(frequencyHz, toFrequencyHz) * speedRatio;
    case "noise":
      return NOISE_BANDS_TO_HZ * speedRatio;
    case "silence":
      return Math.max(WEIGHTED_TO_HZ, TONE_REACH * (toneBeforeHz ?? 0) * speedRatio);
  }
}
