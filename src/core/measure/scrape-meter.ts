import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { joined } from "@/core/dsp/joined";
import { leastRateFor, ToneDemodulator } from "@/core/dsp/tone-demodulator";
import type { Samples } from "@/core/dsp/signal";

export interface ScrapeFlutter {
  /** Of the unweighted deviation between the two rates. */
  rmsPercent: number;
  fromHz: number;
  toHz: number;
  /** Where most of it lies. */
  strongestHz: number;
}

/** Carriers from here up leave room for rates that other carriers cannot show. */
const LOWEST_CARRIER_HZ = 6000;
const FROM_HZ = 100;
const HIGHEST_HZ = 5000;
/** Rates up to this share of the carrier are followed. */
const SHARE_OF_CARRIER = 0.35;
const STRETCH = 4096;
const OLD_COUNTS = 0.98;

const highestRateOf = (carrierHz: number): number => Math.min(HIGHEST_HZ, SHARE_OF_CARRIER * carrierHz);

/** Whether a carrier shows scrape flutter, and the sample rate holds all of it. */
export const showsScrape = (sampleRateHz: number, carrierHz: number): boolean =>
  carrierHz >= LOWEST_CARRIER_HZ && sampleRateHz >= leastRateFor(carrierHz, highestRateOf(carrierHz));

/**
 * Scrape flutter: fast, rough deviation from 100 Hz to several kHz, from the wide demodulation of a high carrier. Its
 * spectrum is averaged as it comes, what is old counting less and less, so a run of any length costs the same memory.
 */
export class ScrapeMeter {
  private readonly demodulator: ToneDemodulator;
  private readonly toHz: number;
  private rest: Float64Array<ArrayBufferLike> = new Float64Array();
  private power: Float64Array | null = null;
  private weight = 0;
  private binHz = 0;

  /** @throws RangeError when the sample rate cannot hold it (`showsScrape`) */
  constructor(sampleRateHz: number, carrierHz: number) {
    this.toHz = highestRateOf(carrierHz);
    this.demodulator = new ToneDemodulator(sampleRateHz, carrierHz, this.toHz);
  }

  push(block: Samples): void {
    this.rest = joined(this.rest, this.demodulator.push(block).deviation);
    for (; this.rest.length >= STRETCH; this.rest = this.rest.subarray(STRETCH)) {
      const piece = this.rest.subarray(0, STRETCH);
      const mean = piece.reduce((a, b) => a + b, 0) / STRETCH;
      const { amplitude, binHz } = amplitudeSpectrum(
        piece.map((v) => v - mean),
        this.demodulator.outputRateHz,
        STRETCH,
      );
      this.binHz = binHz;
      this.power ??= new Float64Array(amplitude.length);
      this.weight = OLD_COUNTS * this.weight + 1;
      for (let k = 0; k < amplitude.length; k++)
        this.power[k] = OLD_COUNTS * this.power[k] + amplitude[k] * amplitude[k];
    }
  }

  /** Null until some seconds were heard. */
  get result(): ScrapeFlutter | null {
    const { power, binHz, weight, toHz } = this;
    if (power === null) return null;
    let sum = 0;
    const from = Math.ceil(FROM_HZ / binHz);
    let strongest = from;
    for (let k = from; k <= Math.min(power.length - 1, toHz / binHz); k++) {
      sum += power[k];
      if (power[k] > power[strongest]) strongest = k;
    }
    return {
      rmsPercent: 100 * Math.sqrt(sum / weight / 2 / 1.5),
      fromHz: FROM_HZ,
      toHz,
      strongestHz: strongest * binHz,
    };
  }
}
