import { amplitudeOf } from "@/core/dsp/decibels";
import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { quantileInPlace } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";

const SIZE = 4096;
const KEEP = 0.9;
/** Usual rates whose half can show up as an edge inside a wider band. */
const CONVERTED_FROM_HZ = [8000, 11025, 16000, 22050, 24000, 32000, 44100, 48000];
const EDGE_DB = 25;
export const LOOKS_NEEDED = 8;
/** There must be noise below the edge, well above what a strong tone's window leaves far away from it. */
const FAINTEST = 3e-8;

/** A running average spectrum of one channel, a few looks a second. */
export class SpectrumWatch {
  readonly binHz: number;
  readonly power = new Float64Array(SIZE / 2 + 1);
  /** Share of the latest look's power in its strongest line: near 1 for a tone. */
  tonality = 0;
  looks = 0;
  private readonly held = new Float64Array(SIZE);
  private filled = 0;
  private skip = 0;

  constructor(private readonly sampleRateHz: number) {
    this.binHz = sampleRateHz / SIZE;
  }

  push(block: Samples): void {
    for (let at = 0; at < block.length;) {
      if (this.skip > 0) {
        const step = Math.min(this.skip, block.length - at);
        this.skip -= step;
        at += step;
        continue;
      }
      const take = Math.min(SIZE - this.filled, block.length - at);
      this.held.set(block.subarray(at, at + take), this.filled);
      this.filled += take;
      at += take;
      if (this.filled === SIZE) this.look();
    }
  }

  private look(): void {
    const { amplitude } = amplitudeSpectrum(this.held, this.sampleRateHz, SIZE);
    let strongest = 1;
    let total = 0;
    for (let k = 1; k < amplitude.length; k++) {
      const power = amplitude[k] * amplitude[k];
      this.power[k] = KEEP * this.power[k] + (1 - KEEP) * power;
      total += power;
      if (amplitude[k] > amplitude[strongest]) strongest = k;
    }
    let line = 0;
    for (let k = Math.max(1, strongest - 4); k <= strongest + 4; k++) line += (amplitude[k] ?? 0) ** 2;
    this.tonality = total > 0 ? line / total : 0;
    this.looks++;
    this.filled = 0;
    this.skip = Math.round(0.25 * this.sampleRateHz) - SIZE;
  }
}

/**
 * The frequency at which the noise of the input ends like cut with a knife, as a sample-rate conversion or a
 * speech path leaves it; null when the noise runs on.
 */
export function bandLimitOf(watch: SpectrumWatch, sampleRateHz: number): number | null {
  if (watch.looks < LOOKS_NEEDED) return null;
  const floorBetween = (fromHz: number, toHz: number) => {
    const bins = watch.power.slice(Math.ceil(fromHz / watch.binHz), Math.floor(toHz / watch.binHz));
    return bins.length < 8 ? null : Math.sqrt(quantileInPlace(bins, 0.5));
  };
  for (const rate of CONVERTED_FROM_HZ) {
    const edge = rate / 2;
    if (edge > 0.96 * (sampleRateHz / 2)) break;
    // wide enough that a tone within it hardly moves the median
    const below = floorBetween(0.45 * edge, 0.9 * edge);
    const above = floorBetween(1.03 * edge, Math.min(1.3 * edge, sampleRateHz / 2));
    if (below === null || above === null) continue;
    if (below > FAINTEST && above < below * amplitudeOf(-EDGE_DB)) return edge;
  }
  return null;
}
