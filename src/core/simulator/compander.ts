import { amplitudeOf, powerDb } from "@/core/dsp/decibels";
import { withoutTrace } from "@/core/dsp/filter-section";

/** Above this its treble is followed. */
const CORNER_HZ = 1500;
/** Louder treble than this goes through as it is, dB re 0; quieter than that is lifted as far as it goes. */
const FROM_DB = -10;
const TO_DB = -30;
/** How far treble is lifted for each dB that it comes out below the upper end. */
const LIFT = 0.5;
const ATTACK_SECONDS = 0.01;
const RELEASE_SECONDS = 0.08;

/**
 * A noise reduction of a plain kind of its own: quiet treble is lifted before the tape, by how loud it comes out, and
 * taken down as far after it, by how loud it comes in. Both ways follow the same signal, so that they cancel exactly
 * when the tape gives back the level that it was given; a dB that is missing takes half a dB more of the treble with it.
 */
export class Compander {
  private readonly pole: number;
  private readonly gain: number;
  private readonly attack: number;
  private readonly release: number;
  private before = 0;
  private high = 0;
  private heardBefore = 0;
  private heardHigh = 0;
  private power = 0;

  /** @param errorDb what is wrong with its treble: it lifts or takes down so much too little */
  constructor(
    private readonly way: "encode" | "decode",
    sampleRateHz: number,
    private readonly errorDb = 0,
  ) {
    this.pole = Math.exp((-2 * Math.PI * CORNER_HZ) / sampleRateHz);
    this.gain = (1 + this.pole) / 2;
    this.attack = 1 - Math.exp(-1 / (ATTACK_SECONDS * sampleRateHz));
    this.release = 1 - Math.exp(-1 / (RELEASE_SECONDS * sampleRateHz));
  }

  /** A block re 0 level, in place. */
  push(x: Float64Array): void {
    for (let i = 0; i < x.length; i++) {
      const lift = this.lift();
      const y = this.way === "encode" ? this.encode(x[i], lift) : this.decode(x[i], lift);
      this.follow(this.way === "encode" ? y : x[i]);
      x[i] = y;
    }
    this.high = withoutTrace(this.high);
    this.heardHigh = withoutTrace(this.heardHigh);
    this.power = withoutTrace(this.power);
  }

  /** How much treble is added, as a share. */
  private lift(): number {
    const loudDb = powerDb(2 * this.power + 1e-12);
    const db = LIFT * (FROM_DB - Math.max(TO_DB, Math.min(FROM_DB, loudDb)));
    return amplitudeOf(Math.max(0, db - this.errorDb)) - 1;
  }

  /** y = x + lift · high(x) */
  private encode(x: number, lift: number): number {
    this.high = this.pole * this.high + this.gain * (x - this.before);
    this.before = x;
    return x + lift * this.high;
  }

  /** The x of which that is y, solved for the sample at hand. */
  private decode(y: number, lift: number): number {
    const rest = this.pole * this.high - this.gain * this.before;
    const x = (y - lift * rest) / (1 + lift * this.gain);
    this.high = rest + this.gain * x;
    this.before = x;
    return x;
  }

  private follow(sample: number): void {
    this.heardHigh = this.pole * this.heardHigh + this.gain * (sample - this.heardBefore);
    this.heardBefore = sample;
    const now = this.heardHigh * this.heardHigh;
    this.power += (now > this.power ? this.attack : this.release) * (now - this.power);
  }
}
