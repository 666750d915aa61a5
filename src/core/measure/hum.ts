import { amplitudeDb, powerOf } from "@/core/dsp/decibels";
import { amplitudeSpectrum } from "@/core/dsp/amplitude-spectrum";
import { FirDecimator } from "@/core/dsp/fir-decimator";
import { kaiserLowpass } from "@/core/dsp/kaiser-lowpass";
import { quantileInPlace } from "@/core/dsp/quantile";
import type { Samples } from "@/core/dsp/signal";

export interface HumLine {
  frequencyHz: number;
  /** Peak amplitude of the line, a full-scale sine being 0. */
  levelDb: number;
}

export interface Hum {
  /** Frequency of the mains that fits, or null when no hum stands out of the noise. */
  mainsHz: 50 | 60 | null;
  lines: HumLine[];
}

const HIGHEST_HZ = 520;
const RATE_HZ = 2000;
const SIZE = 8192;
const MAINS = [50, 60] as const;
const HARMONICS = 8;
/** Mains frequency may be off by this, and the line is looked for so far from its place. */
const TOLERANCE = 0.006;
const STANDS_OUT_DB = 12;
/** Fainter lines are rounding, not hum. */
const FAINTEST_DBFS = -110;
/** A line so much above the first two of its family is programme or a test tone. */
const TOO_STRONG_DB = 12;

/**
 * Listens for mains hum in one channel: the lines at whole multiples of 50 or 60 Hz up to the eighth that stand
 * out of what is around them. Four seconds resolve a quarter of a hertz; shorter sound is used as it is.
 */
export class HumMeter {
  readonly rateHz: number;
  private readonly decimator: FirDecimator;
  private readonly held = new Float64Array(SIZE);
  private filled = 0;
  private readonly power = new Float64Array(SIZE / 2 + 1);
  private stretches = 0;
  private binsPerLine = 1;

  /** @param keep share of the old spectrum that stays when a new one comes; 1 for a file, less for a live source */
  constructor(
    sampleRateHz: number,
    private readonly keep = 1,
  ) {
    const factor = Math.max(1, Math.floor(sampleRateHz / RATE_HZ));
    this.rateHz = sampleRateHz / factor;
    this.decimator = new FirDecimator(
      kaiserLowpass(sampleRateHz, HIGHEST_HZ, this.rateHz - HIGHEST_HZ, 90),
      factor,
    );
  }

  /** Takes a block and returns it reduced to what lies below about 500 Hz, at `rateHz`. */
  push(block: Samples): Float32Array {
    const low = this.decimator.push(block).re;
    for (let at = 0; at < low.length;) {
      const take = Math.min(SIZE - this.filled, low.length - at);
      this.held.set(low.subarray(at, at + take), this.filled);
      this.filled += take;
      at += take;
      if (this.filled === SIZE) {
        this.add(SIZE);
        this.held.copyWithin(0, SIZE / 2);
        this.filled = SIZE / 2;
      }
    }
    return low;
  }

  get hum(): Hum {
    if (this.stretches === 0 && this.filled > SIZE / 16) this.add(this.filled);
    if (this.stretches === 0) return { mainsHz: null, lines: [] };
    const families = MAINS.map((mainsHz) => ({ mainsHz, lines: this.family(mainsHz) }));
    const own = ({ lines }: { lines: HumLine[] }) =>
      lines.reduce((sum, { frequencyHz, levelDb }) => (frequencyHz < 290 ? sum + powerOf(levelDb) : sum), 0);
    const [fifty, sixty] = families;
    const stronger = own(fifty) >= own(sixty) ? fifty : sixty;
    return stronger.lines.length > 0 ? stronger : { mainsHz: null, lines: [] };
  }

  private family(mainsHz: number): HumLine[] {
    const lines = Array.from({ length: HARMONICS }, (_, i) => this.line((i + 1) * mainsHz));
    const first = Math.max(lines[0]?.levelDb ?? -Infinity, lines[1]?.levelDb ?? -Infinity);
    return lines.filter(
      (line) => line !== null && line.levelDb < first + TOO_STRONG_DB && line.levelDb > FAINTEST_DBFS,
    ) as HumLine[];
  }

  private line(nearHz: number): HumLine | null {
    const binHz = this.rateHz / SIZE;
    const from = Math.floor((nearHz * (1 - TOLERANCE)) / binHz);
    const to = Math.ceil((nearHz * (1 + TOLERANCE)) / binHz);
    let k = from;
    for (let i = from; i <= to; i++) if (this.power[i] > this.power[k]) k = i;
    const around = new Float64Array(64);
    const away = Math.ceil(4 * this.binsPerLine) + 2;
    for (let i = 0; i < 32; i++) {
      around[2 * i] = this.power[k - away - i] ?? 0;
      around[2 * i + 1] = this.power[k + away + i] ?? 0;
    }
    const floor = quantileInPlace(around, 0.5);
    const [a, b, c] = [this.power[k - 1], this.power[k], this.power[k + 1]];
    if (!(b > floor * powerOf(STANDS_OUT_DB)) || b < a || b < c) return null;
    const lean = Math.log(c / a) / (2 * Math.log((b * b) / (a * c)));
    // all of the window's main lobe, over the window's noise bandwidth of 1.5 bins
    let sum = 0;
    const lobe = Math.ceil(2 * this.binsPerLine);
    for (let i = Math.max(1, k - lobe); i <= k + lobe; i++) sum += this.power[i];
    return {
      frequencyHz: (k + (Number.isFinite(lean) ? lean : 0)) * binHz,
      levelDb: amplitudeDb(Math.sqrt(sum / 1.5 / this.stretches)),
    };
  }

  private add(length: number): void {
    const { amplitude } = amplitudeSpectrum(this.held.subarray(0, length), this.rateHz, SIZE);
    this.binsPerLine = SIZE / length;
    const scale = 1 / this.binsPerLine; // a short stretch spreads its lines over more bins
    for (let k = 0; k < amplitude.length; k++)
      this.power[k] = this.keep * this.power[k] + scale * amplitude[k] * amplitude[k];
    this.stretches = this.keep * this.stretches + 1;
  }
}
