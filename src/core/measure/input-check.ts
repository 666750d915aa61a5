import { powerDb } from "@/core/dsp/decibels";
import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { squaresAndPeak } from "@/core/dsp/sample-kernel";
import type { Samples } from "@/core/dsp/signal";
import { summitNear } from "@/core/dsp/spectral-summit";
import { CLIPPED_RUN, FULL_SCALE } from "./full-scale";

const SPECTRUM_SIZE = 16384;
/** One look per this many samples is enough to know which tone plays; half as many each time it was looked at so often. */
const LOOK_EVERY = 16 * SPECTRUM_SIZE;
const MANY_LOOKS = 10;
const CHUNK = 4096;
/** Below this the tone that should be there is judged against hum and rumble, which may be stronger. */
const LOWEST_OTHER_TONE_HZ = 250;

export interface ToneFound {
  /** Strongest spectral line within ±30 % of nominal. */
  nearHz: number;
  /** Share of the power within ±30 % of nominal that lies within ±5 % of that line: near 1 for a tone. */
  purity: number;
  /** Strongest line anywhere above hum and rumble, and how many dB it stands above the one near nominal. */
  strongestHz: number;
  strongestAboveDb: number;
}

/**
 * Watches one channel's raw samples beside the measurement: level, clipping, broken samples, and whether the
 * tone that is expected is the tone that plays.
 */
export class InputCheck {
  peak = 0;
  clippedRuns = 0;
  brokenSamples = 0;
  /** When set, every look at the spectrum halves the weight of what came before. */
  forgetful = false;
  private sumOfSquares = 0;
  private count = 0;
  private run = 0;
  private readonly window = new Float64Array(SPECTRUM_SIZE);
  private filled = 0;
  private untilNextLook = 0;
  private looks = 0;
  private readonly power = new Float64Array(SPECTRUM_SIZE / 2 + 1);

  constructor(private readonly sampleRateHz: number) {}

  /** Takes the block as it is, replaces samples that are not numbers by zero, counts them. */
  push(block: Samples): void {
    for (let at = 0; at < block.length; at += CHUNK) this.take(block.subarray(at, at + CHUNK));
    this.count += block.length;
    this.lookAt(block);
  }

  /** Most pieces have no sample near full scale and none that is no number: those are summed and no more. */
  private take(piece: Samples): void {
    const { squares, peak } = squaresAndPeak(piece);
    if (!(peak < FULL_SCALE && squares < Infinity)) return this.takeOneByOne(piece);
    this.run = 0;
    this.peak = Math.max(this.peak, peak);
    this.sumOfSquares += squares;
  }

  private takeOneByOne(piece: Samples): void {
    for (let i = 0; i < piece.length; i++) {
      if (!(Math.abs(piece[i]) < 1e6)) {
        this.brokenSamples++;
        piece[i] = 0;
      }
      const magnitude = Math.abs(piece[i]);
      this.peak = Math.max(this.peak, magnitude);
      this.run = magnitude >= FULL_SCALE ? this.run + 1 : 0;
      if (this.run === CLIPPED_RUN) this.clippedRuns++;
      this.sumOfSquares += magnitude * magnitude;
    }
  }

  get rms(): number {
    return this.count === 0 ? 0 : Math.sqrt(this.sumOfSquares / this.count);
  }

  /** Null until anything but silence was heard. */
  tone(nominalHz: number): ToneFound | null {
    if (this.filled > 1024 && this.power.every((p) => p === 0)) this.addSpectrum(this.filled);
    const binHz = this.sampleRateHz / SPECTRUM_SIZE;
    const strongestIn = (fromHz: number, toHz: number) => {
      let best = Math.max(1, Math.ceil(fromHz / binHz));
      for (let k = best; k <= Math.min(this.power.length - 1, toHz / binHz); k++)
        if (this.power[k] > this.power[best]) best = k;
      return best;
    };
    const powerIn = (fromHz: number, toHz: number) => {
      let total = 0;
      for (
        let k = Math.max(1, Math.ceil(fromHz / binHz));
        k <= Math.min(this.power.length - 1, toHz / binHz);
        k++
      )
        total += this.power[k];
      return total;
    };
    const near = strongestIn(0.7 * nominalHz, 1.3 * nominalHz);
    const strongest = strongestIn(LOWEST_OTHER_TONE_HZ, this.sampleRateHz / 2);
    if (!(this.power[strongest] > 0)) return null;
    const nearHz = near * binHz;
    return {
      nearHz,
      purity: powerIn(0.95 * nearHz, 1.05 * nearHz) / powerIn(0.7 * nominalHz, 1.3 * nominalHz),
      strongestHz: (strongest + summitNear(this.power, strongest).shift) * binHz,
      strongestAboveDb: powerDb(this.power[strongest] / this.power[near]),
    };
  }

  private lookAt(block: Samples): void {
    let at = 0;
    while (at < block.length) {
      if (this.untilNextLook > 0) {
        const skip = Math.min(this.untilNextLook, block.length - at);
        this.untilNextLook -= skip;
        at += skip;
        continue;
      }
      const take = Math.min(SPECTRUM_SIZE - this.filled, block.length - at);
      this.window.set(block.subarray(at, at + take), this.filled);
      this.filled += take;
      at += take;
      if (this.filled === SPECTRUM_SIZE) {
        this.addSpectrum(SPECTRUM_SIZE);
        this.filled = 0;
        this.looks++;
        const rarer = 2 ** Math.floor(this.looks / MANY_LOOKS);
        this.untilNextLook = this.forgetful ? 0 : rarer * LOOK_EVERY - SPECTRUM_SIZE;
      }
    }
  }

  private addSpectrum(length: number): void {
    const { amplitude } = amplitudeSpectrum(
      this.window.subarray(0, length),
      this.sampleRateHz,
      SPECTRUM_SIZE,
    );
    const keep = this.forgetful ? 0.5 : 1;
    for (let k = 0; k < amplitude.length; k++)
      this.power[k] = keep * this.power[k] + amplitude[k] * amplitude[k];
    if (!this.forgetful) return;
    this.sumOfSquares *= keep;
    this.count *= keep;
    this.clippedRuns = Math.floor(keep * this.clippedRuns);
  }
}
