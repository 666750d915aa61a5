import type { Samples } from "@/core/dsp/signal";
import { LiveTransport, type LiveResult, type LiveSpeed } from "@/core/measure/live-transport";
import type { SteadyStretch } from "@/core/measure/steady-stretch";
import { Every } from "./every";

/** Tones that speed and flutter can be read from. */
const LOWEST_CARRIER_HZ = 900;
const FIND_PARTS_EVERY_SECONDS = 4;

interface Options {
  sampleRateHz: number;
  channelCount: number;
  /** Frequency to compare with until another tone plays. */
  nominalHz: number;
  /** Seconds of sound in a second of the clock. */
  pace: number;
}

/** Speed and flutter of the tone that plays: the meter begins anew with each other tone, the seconds go on. */
export class FollowedTransport {
  private transport: LiveTransport;
  private nominal: number;
  /** When the present meter was begun. */
  private since = 0;
  private markedAt = -Infinity;
  private readonly stretchEvery: Every;

  constructor(private readonly options: Options) {
    this.nominal = options.nominalHz;
    this.transport = this.meter();
    this.stretchEvery = new Every(options.pace * FIND_PARTS_EVERY_SECONDS);
  }

  get nominalHz(): number {
    return this.nominal;
  }

  push(block: Samples[]): void {
    this.transport.push(block);
  }

  /** Something was turned, or what plays was interrupted. */
  mark(seconds: number): void {
    this.markedAt = seconds;
    this.transport.mark();
  }

  /** This tone plays from now on; one that tells nothing of the transport changes nothing. */
  follow(frequencyHz: number, seconds: number): void {
    if (frequencyHz < LOWEST_CARRIER_HZ || Math.abs(frequencyHz / this.nominal - 1) < 1e-6) return;
    this.nominal = frequencyHz;
    this.since = seconds;
    this.transport = this.meter();
  }

  result(withFlutter: boolean): LiveResult {
    const live = this.transport.result(withFlutter);
    return {
      ...live,
      seconds: live.seconds + this.since,
      speed: live.speed && { ...live.speed, beforeChange: this.sinceMark(live.speed) },
    };
  }

  /** What the guilty parts are to be thought out from; null while it was thought out a moment ago, or there is too little. */
  stretch(seconds: number): SteadyStretch | null {
    if (!this.stretchEvery.isDue(seconds)) return null;
    const stretch = this.transport.remembered();
    if (stretch === null) return null;
    this.stretchEvery.done(seconds);
    return { ...stretch, startSeconds: stretch.startSeconds + this.since };
  }

  /** How the speed stood before it changed, when that was after the last turn that was told. */
  private sinceMark({ beforeChange }: LiveSpeed): LiveSpeed["beforeChange"] {
    if (beforeChange === null) return null;
    const atSeconds = beforeChange.atSeconds + this.since;
    return atSeconds > this.markedAt ? { ...beforeChange, atSeconds } : null;
  }

  private meter(): LiveTransport {
    const { sampleRateHz, channelCount, pace } = this.options;
    return new LiveTransport(sampleRateHz, channelCount, this.nominal, pace);
  }
}
