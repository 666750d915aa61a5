import { amplitudeDb, powerDb } from "@/core/dsp/decibels";
import * as z from "@/core/text/zod";

/** What is known of one input device. */
export const calibrationSchema = z.object({
  deviceId: z.string().min(1),
  deviceName: z.string(),
  /** How fast its clock is: the true sample rate is the nominal one times 1 + ppm · 10⁻⁶. */
  clock: z
    .object({
      ppm: z.number().min(-5000).max(5000),
      uncertaintyPpm: z.number().positive(),
      at: z.iso.datetime(),
    })
    .nullable()
    .default(null),
  /** Level in dBu of a sine that just reaches full scale, per channel. */
  level: z
    .object({
      leftDbu: z.number().min(-80).max(80),
      rightDbu: z.number().min(-80).max(80),
      at: z.iso.datetime(),
    })
    .nullable()
    .default(null),
  /** With its output cabled to its input. */
  loopBack: z
    .object({
      noiseDbfs: z.number(),
      toneDbfs: z.number(),
      /** Harmonics of its own, in dB below the tone. */
      secondDb: z.number(),
      thirdDb: z.number(),
      at: z.iso.datetime(),
    })
    .nullable()
    .default(null),
});
export type Calibration = z.infer<typeof calibrationSchema>;

/**
 * How fast a sound card's clock is, from the frequency error that a true frequency seemed to have: a fast clock takes
 * more samples of each cycle and reads low.
 * @param measured what the uncalibrated clock made of the tone, percent
 * @param referencePpm ± at 95 % of the frequency itself
 */
export function clockFrom(
  measured: { errorPercent: number; uncertaintyPercent: number },
  referencePpm: number,
): { ppm: number; uncertaintyPpm: number } {
  return {
    ppm: (1 / (1 + measured.errorPercent / 100) - 1) * 1e6,
    uncertaintyPpm: Math.hypot(1e4 * measured.uncertaintyPercent, referencePpm),
  };
}

/** A clock that was never compared is taken as right within so much. */
export const UNCALIBRATED_PPM = 50;

/** What listening may leave unknown of a clock, ppm at 95 %: more is listened to longer, not kept. */
const LISTENING_PPM = 5;

/**
 * Whether a comparison is worth keeping: it knows the clock better than nothing does, and listening leaves no more
 * open than a few ppm or than the frequency itself does. A tone that has just begun again does not pass.
 */
export function clockIsKnown(
  measured: { errorPercent: number; uncertaintyPercent: number },
  referencePpm: number,
): boolean {
  return (
    1e4 * measured.uncertaintyPercent <= Math.max(LISTENING_PPM, referencePpm) &&
    clockFrom(measured, referencePpm).uncertaintyPpm < UNCALIBRATED_PPM
  );
}

/** Level in dBu of a full-scale sine, when a sine of a known voltage (RMS) reads so many dBFS RMS. */
export function fullScaleDbu(volts: number, rmsDbfs: number): number {
  const dbu = amplitudeDb(volts / Math.sqrt(0.6));
  return dbu - (rmsDbfs + powerDb(2));
}
