import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { amplitudeDb } from "@/core/dsp/decibels";
import { median } from "@/core/dsp/quantile";
import { summitNear } from "@/core/dsp/spectral-summit";
import type { Samples } from "@/core/dsp/signal";

/** The bias oscillator as it comes out of a machine. */
export interface OscillatorLine {
  frequencyKhz: number;
  uncertaintyKhz: number;
  /** Peak level of each channel. */
  levelsDbfs: number[];
}

/** Below this lies sound; bias oscillators swing above it. */
const FROM_HZ = 40_000;
/** A converter's own filter begins to cut here, as a share of the sample rate. */
const TO_SHARE = 0.47;
const SIZE = 32_768;
/** A line, not noise: so far above what is usual around it. */
const STANDS_OUT_DB = 20;

/**
 * Bias that is left in what a machine puts out: the strongest line above 40 kHz.
 * @param channels the last seconds, full scale = ±1
 * @returns null where the sample rate does not reach so high, the sound is too short, or no line stands out
 */
export function oscillatorLine(channels: readonly Samples[], sampleRateHz: number): OscillatorLine | null {
  const toHz = TO_SHARE * sampleRateHz;
  if (toHz < 1.5 * FROM_HZ || (channels.at(0)?.length ?? 0) < SIZE) return null;
  const spectra = channels.map((x) => amplitudeSpectrum(x, sampleRateHz, SIZE));
  const { binHz } = spectra[0];
  const [from, to] = [Math.ceil(FROM_HZ / binHz), Math.floor(toHz / binHz)];
  const sum = Float64Array.from(spectra[0].amplitude, (_, k) =>
    Math.hypot(...spectra.map(({ amplitude }) => amplitude[k])),
  );
  const above = sum.subarray(from, to);
  const summit = above.reduce((best, v, k) => (v > above[best] ? k : best), 0);
  if (amplitudeDb(above[summit]) - amplitudeDb(median([...above])) < STANDS_OUT_DB) return null;
  const k = from + summit;
  return {
    frequencyKhz: ((k + summitNear(sum, k).shift) * binHz) / 1000,
    uncertaintyKhz: binHz / 1000,
    levelsDbfs: spectra.map(({ amplitude }) => amplitudeDb(summitNear(amplitude, k).height)),
  };
}
