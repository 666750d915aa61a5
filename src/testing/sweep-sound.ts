import { amplitudeOf } from "@/core/dsp/decibels";
import type { SweepShape } from "@/core/measure/sweep-levels";
import { whiteNoise } from "./fm-tone";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48000;
export const SWEEP: SweepShape = { frequencyHz: 40, toFrequencyHz: 12_500, seconds: 20 };
export const SWEEP_START_SECONDS = 1.3;

/** A loss like a head's, in dB at the frequency on the tape. */
export const lossDb = (hz: number) =>
  (-6 * hz) / 10_000 + 2 * Math.exp(-0.5 * (Math.log2(hz / 80) / 0.5) ** 2);

export interface SweepOptions {
  speedRatio?: number;
  /** Speed variation, peak percent and rate in Hz. */
  flutter?: ReadonlyArray<readonly [number, number]>;
  humDbfs?: number;
  shape?: SweepShape;
}

/** A played sweep in closed form, at −20 dBFS, its strength following `lossDb`. */
export function sweepSound({
  speedRatio = 1,
  flutter = [],
  humDbfs,
  shape = SWEEP,
}: SweepOptions): Float64Array {
  const { frequencyHz, toFrequencyHz, seconds } = shape;
  const rise = Math.log(toFrequencyHz / frequencyHz) / seconds;
  const noise = whiteNoise(
    Math.round((SWEEP_START_SECONDS + seconds / speedRatio + 1) * RATE),
    amplitudeOf(-75),
    3,
  );
  const mainsAt = (t: number) =>
    [1, 2, 3, 5].reduce((sum, k) => sum + Math.sin(2 * Math.PI * 50.02 * k * t + k) / k, 0);
  return sampled(noise.length, (i) => {
    const t = i / RATE - SWEEP_START_SECONDS;
    const wow = flutter.reduce(
      (sum, [percent, hz]) => sum - ((percent / 100) * Math.cos(2 * Math.PI * hz * t)) / (2 * Math.PI * hz),
      0,
    );
    const tape = speedRatio * (t + wow);
    const hum = humDbfs === undefined ? 0 : amplitudeOf(humDbfs) * mainsAt(t);
    if (tape < 0 || tape > seconds) return noise[i] + hum;
    const hz = frequencyHz * Math.exp(rise * tape);
    const phase = ((2 * Math.PI * frequencyHz) / rise) * Math.expm1(rise * tape);
    return noise[i] + hum + amplitudeOf(lossDb(hz) - 20) * Math.sin(phase);
  });
}
