import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { amplitudeDb } from "@/core/dsp/decibels";
import { median } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";

/** A steady line beside a tone that is none of its harmonics. */
export interface ForeignLine {
  frequencyHz: number;
  /** Re the tone. */
  levelDb: number;
}

const STRETCH_SECONDS = 0.7;
const LOWEST_HZ = 30;
/** Looked for up to this harmonic; around each, flutter spreads so far. */
const HIGHEST_ORDER = 8;
const SPREAD_SHARE = 0.03;
const LEAST_SPREAD_HZ = 15;
/** It stands out of what is around it by so much. */
const STANDS_OUT_DB = 15;
/** Another tone that is stronger makes distortion of its own with the tone, dB re the tone; hum is weaker than this in any working machine. */
const TONE_DB = -40;
const HUM_DB = -25;
const MAINS_HZ = [50, 60];
const MAINS_WITHIN_HZ = 1.5;

/**
 * The strongest line that belongs to something else than a tone: another generator, a buzz, crosstalk. Null where there is
 * none that matters.
 * @param x one channel with the tone @param toneHz its frequency @param toneDbfs its peak level
 */
export function foreignLine(
  x: Samples,
  sampleRateHz: number,
  toneHz: number,
  toneDbfs: number,
): ForeignLine | null {
  const stretch = Math.min(x.length, Math.round(STRETCH_SECONDS * sampleRateHz));
  const size = 2 ** Math.ceil(Math.log2(stretch));
  const { amplitude, binHz } = amplitudeSpectrum(x, sampleRateHz, size, stretch);
  const last = Math.min(amplitude.length - 1, Math.floor((HIGHEST_ORDER * toneHz) / binHz));
  const isOwn = (hz: number) => {
    const order = Math.max(1, Math.round(hz / toneHz));
    return Math.abs(hz - order * toneHz) < Math.max(LEAST_SPREAD_HZ, SPREAD_SHARE * order * toneHz);
  };
  let strongest: ForeignLine | null = null;
  for (let k = Math.ceil(LOWEST_HZ / binHz); k <= last; k++) {
    const frequencyHz = k * binHz;
    if (isOwn(frequencyHz)) continue;
    const levelDb = amplitudeDb(amplitude[k]) - toneDbfs;
    if (strongest && levelDb <= strongest.levelDb) continue;
    const isMains = MAINS_HZ.some(
      (hz) => Math.abs(frequencyHz - hz * Math.round(frequencyHz / hz)) < Math.max(MAINS_WITHIN_HZ, binHz),
    );
    if (levelDb > (isMains ? HUM_DB : TONE_DB)) strongest = { frequencyHz, levelDb };
  }
  if (!strongest) return null;
  const around = Math.round((0.2 * toneHz) / binHz);
  const middle = Math.round(strongest.frequencyHz / binHz);
  const beside = amplitude.subarray(Math.max(1, middle - around), middle + around + 1);
  return strongest.levelDb + toneDbfs - amplitudeDb(median(Float64Array.from(beside))) > STANDS_OUT_DB
    ? strongest
    : null;
}
