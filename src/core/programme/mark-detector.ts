import { FirDecimator } from "@/core/dsp/fir-decimator";
import { joined } from "@/core/dsp/joined";
import { kaiserLowpass } from "@/core/dsp/kaiser-lowpass";
import { StereoSpectrum } from "@/core/dsp/stereo-spectrum";
import type { Samples } from "@/core/dsp/signal";
import { HeardMoments } from "./heard-moments";
import {
  DIGIT_SECONDS,
  digitOf,
  DIGITS,
  DIGITS_WITH_PASS,
  digitRatio,
  markWords,
  RADIX,
  REFERENCE_HZ,
  REFERENCE_SECONDS,
} from "./sync-mark";

/** A synchronisation mark that was heard. */
export interface HeardMark {
  /** Where the mark begins in the recording. */
  atSeconds: number;
  sequenceDigit: number;
  segment: number;
  /** Which time through the sequence; null where its marks do not say. */
  pass: number | null;
  /** Speed at that moment relative to right. */
  speedRatio: number;
}

const SIZE = 512;
const HOP = 64;
const RATE_HZ = 16000;
const SLOWEST = 0.885;
const FASTEST = 1.115;
/** Frequencies a mark can have, and where its power is compared. */
const FROM_HZ = 700;
const TO_HZ = 3600;
const DOMINANCE = 0.5;
const FAINTEST = 1e-8;
const DIGIT_OFF = 0.25;
const REFERENCE_OFF = 0.02;

/**
 * Listens for synchronisation marks: whatever tone looks like the reference is followed by the four digits at the
 * times that its own pitch says, as many as stand before the closing reference, and the check digit must fit. Speed −11 to +11 %,
 * blocks of any length; the first two channels are heard together.
 */
export class MarkDetector {
  readonly marks: HeardMark[] = [];
  private readonly decimator: FirDecimator;
  private readonly rateHz: number;
  private readonly firstSeconds: number;
  private readonly spectrum = new StereoSpectrum(SIZE);
  private held = new Float64Array(0);
  private heldRight = new Float64Array(0);
  private readonly rightDecimator: FirDecimator;
  /** The last seconds; the rest is forgotten. */
  private readonly moments: HeardMoments;
  /** Of the moment that is looked at. */
  private readonly powers: Float64Array;
  private readonly firstBin: number;
  private forgotten = 0;
  private searched = 0;

  constructor(sampleRateHz: number) {
    const factor = Math.max(1, Math.floor(sampleRateHz / RATE_HZ));
    this.rateHz = sampleRateHz / factor;
    const taps = kaiserLowpass(sampleRateHz, TO_HZ, Math.max(this.rateHz - TO_HZ, 1.2 * TO_HZ), 70);
    this.decimator = new FirDecimator(taps, factor);
    this.rightDecimator = new FirDecimator(taps, factor);
    this.firstSeconds = this.decimator.delaySamples / sampleRateHz + SIZE / 2 / this.rateHz;
    const binHz = this.rateHz / SIZE;
    this.firstBin = Math.floor(FROM_HZ / binHz);
    this.powers = new Float64Array(Math.ceil(TO_HZ / binHz) - this.firstBin);
    this.moments = new HeardMoments(this.powers.length);
  }

  push(block: Samples[]): void {
    this.held = joined(this.held, this.decimator.push(block[0]).re);
    this.heldRight = block[1]
      ? joined(this.heldRight, this.rightDecimator.push(block[1]).re)
      : this.heldRight;
    let at = 0;
    for (; at + SIZE <= this.held.length; at += HOP) {
      this.spectrum.transform(this.held, block[1] ? this.heldRight : null, at);
      this.look();
    }
    this.held = this.held.slice(at);
    this.heldRight = this.heldRight.slice(at);
    this.search();
  }

  private get secondsPerMoment(): number {
    return HOP / this.rateHz;
  }

  private secondsOf(moment: number): number {
    return this.firstSeconds + moment * this.secondsPerMoment;
  }

  private look(): void {
    const { leftPower, rightPower } = this.spectrum;
    const { firstBin: from, powers } = this;
    let total = 0;
    let k = 0;
    for (let i = 0; i < powers.length; i++) {
      powers[i] = leftPower[from + i] + rightPower[from + i];
      total += powers[i];
      if (powers[i] > powers[k]) k = i;
    }
    let lobe = 0;
    for (let i = Math.max(0, k - 2); i <= Math.min(powers.length - 1, k + 2); i++) lobe += powers[i];
    const log = (i: number) => Math.log((powers[i] ?? 0) + 1e-300);
    const lean = (log(k + 1) - log(k - 1)) / (2 * (2 * log(k) - log(k - 1) - log(k + 1)));
    const inside = k > 0 && k < powers.length - 1 && Number.isFinite(lean);
    this.moments.add(
      ((from + k + (inside ? lean : 0)) * this.rateHz) / SIZE,
      inside && lobe > DOMINANCE * total && total > FAINTEST,
      powers,
    );
  }

  /** Tries every moment that a whole mark could have begun at and that has been followed by enough sound. */
  private search(): void {
    const whole = Math.ceil((MARK_TONES_SECONDS / SLOWEST + 0.15) / this.secondsPerMoment);
    for (; this.searched + whole < this.moments.length; this.searched++) {
      if (this.markAt(this.searched) === null) continue;
      // many moments within the reference tone fit: the middle one stands best on all the digits
      let last = this.searched;
      while (last + 1 + whole < this.moments.length && this.markAt(last + 1)) last++;
      this.marks.push(this.markAt((this.searched + last) >> 1)!);
      this.searched += Math.round(MARK_TONES_SECONDS / FASTEST / this.secondsPerMoment);
    }
    const drop = Math.max(0, this.searched - Math.ceil(0.2 / this.secondsPerMoment));
    if (drop > 1000) {
      this.moments.forget(drop);
      this.searched -= drop;
      this.forgotten += drop;
    }
  }

  /** The mark whose first reference tone has its middle near this moment. */
  private markAt(moment: number): HeardMark | null {
    const referenceHz = this.moments.tone(moment);
    if (referenceHz === null) return null;
    const ratio = referenceHz / REFERENCE_HZ;
    if (ratio < SLOWEST || ratio > FASTEST) return null;
    const step = (seconds: number) => Math.round(seconds / ratio / this.secondsPerMoment);
    const steadyUntil = step(REFERENCE_SECONDS / 2 - 0.03);
    for (let i = -2; i <= 2; i++) {
      const hz = this.moments.tone(moment + Math.round((i * steadyUntil) / 2));
      if (hz === null || Math.abs(hz / referenceHz - 1) > REFERENCE_OFF) return null;
    }
    const toneAfter = (seconds: number) => this.moments.tone(moment + step(seconds));
    const closes = (digits: number) => {
      const hz = toneAfter(REFERENCE_SECONDS + digits * DIGIT_SECONDS);
      return hz !== null && Math.abs(hz / referenceHz - 1) <= REFERENCE_OFF;
    };
    const count = [DIGITS, DIGITS_WITH_PASS].find(closes);
    if (count === undefined) return null;
    const digits: number[] = [];
    for (let d = 0; d < count; d++) {
      const hz = toneAfter(REFERENCE_SECONDS / 2 + (d + 0.5) * DIGIT_SECONDS);
      if (hz === null) return null;
      const { digit, off } = digitOf(hz / referenceHz);
      if (off > DIGIT_OFF || digit < 0 || digit >= RADIX) return null;
      digits.push(digit);
    }
    const words = markWords(digits);
    if (words === null) return null;
    return {
      sequenceDigit: words.sequence,
      segment: words.segment,
      pass: words.pass,
      speedRatio: ratio,
      atSeconds: this.exactStart(moment, digits, referenceHz, ratio),
    };
  }

  /** From the moments at which one tone has become as strong as the next, wherever two of different pitch meet. */
  private exactStart(moment: number, digits: number[], referenceHz: number, ratio: number): number {
    const tones = [1, ...digits.map(digitRatio), 1].map((r) => r * referenceHz);
    const starts: number[] = [];
    for (let i = 0; i + 1 < tones.length; i++) {
      if (tones[i] === tones[i + 1]) continue;
      const nominal = REFERENCE_SECONDS + i * DIGIT_SECONDS;
      const near = moment + Math.round((nominal - REFERENCE_SECONDS / 2) / ratio / this.secondsPerMoment);
      const crossing = this.crossing(near, tones[i], tones[i + 1]);
      if (crossing !== null) starts.push(this.secondsOf(this.forgotten + crossing) - nominal / ratio);
    }
    if (starts.length === 0) return this.secondsOf(this.forgotten + moment) - REFERENCE_SECONDS / 2 / ratio;
    starts.sort((a, b) => a - b);
    return starts[starts.length >> 1];
  }

  private crossing(near: number, fromHz: number, toHz: number): number | null {
    const binHz = this.rateHz / SIZE;
    const bin = (hz: number) => Math.round(hz / binHz) - this.firstBin;
    const lead = (m: number) => {
      const around = (k: number) =>
        this.moments.power(m, k - 1) + this.moments.power(m, k) + this.moments.power(m, k + 1);
      return Math.log((around(bin(toHz)) + 1e-12) / (around(bin(fromHz)) + 1e-12));
    };
    const reach = Math.round(0.045 / this.secondsPerMoment);
    for (let m = near - reach; m < near + reach; m++) {
      const [a, b] = [lead(m), lead(m + 1)];
      if (a < 0 && b >= 0) return m + a / (a - b);
    }
    return null;
  }
}

const MARK_TONES_SECONDS = 2 * REFERENCE_SECONDS + DIGITS_WITH_PASS * DIGIT_SECONDS;
