import { FirDecimator } from "@/core/dsp/fir-decimator";
import { kaiserLowpass } from "@/core/dsp/kaiser-lowpass";
import type { Samples } from "@/core/dsp/signal";
import { blockWithin } from "./block-within";
import { KeptSound, type KeptClock } from "./kept-sound";
import type { SoundRooms } from "./sound-rooms";

/** Of what lies below this share of the sample rate half the rate loses nothing. */
const KEPT_SHARE = 0.225;
const STOPPED_DB = 100;

/** Whether half the rate is enough for sound of up to a frequency. */
export const isEnoughHalved = (highestHz: number, sampleRateHz: number): boolean =>
  highestHz < KEPT_SHARE * sampleRateHz;

/** Keeps what lies between two frames of a recording as `KeptSound` does, at half its rate. */
export class HalvedSound {
  private readonly from: number;
  /** One frame beyond the last, of the recording. */
  readonly to: number;
  private readonly kept: KeptSound;
  private halvers: FirDecimator[] | null = null;
  private given = 0;
  private startSeconds = 0;

  /** As `KeptSound` takes it. */
  constructor(
    private readonly sampleRateHz: number,
    channelCount: number,
    { fromSeconds, toSeconds }: { fromSeconds: number; toSeconds: number },
    rooms: SoundRooms,
  ) {
    this.from = Math.max(0, Math.round(fromSeconds * sampleRateHz));
    this.to = Math.max(this.from, Math.round(toSeconds * sampleRateHz));
    const seconds = (this.to - this.from) / sampleRateHz;
    this.kept = new KeptSound(sampleRateHz / 2, channelCount, { fromSeconds: 0, toSeconds: seconds }, rooms);
  }

  /** @param at which frame of the recording the block begins with */
  push(block: readonly Samples[], at: number): void {
    const { sampleRateHz } = this;
    const part = blockWithin(block, at, { from: this.from, to: this.to });
    if (!part) return;
    if (this.halvers === null) {
      const pass = KEPT_SHARE * sampleRateHz;
      const taps = kaiserLowpass(sampleRateHz, pass, sampleRateHz / 2 - pass, STOPPED_DB);
      this.halvers = block.slice(0, 2).map(() => new FirDecimator(taps, 2));
      this.startSeconds = (part.first + this.halvers[0].delaySamples) / sampleRateHz;
    }
    const halved = this.halvers.map((halver, c) => halver.push(part.channels[c]).re);
    this.kept.push(halved, this.given);
    this.given += halved[0].length;
  }

  /** As `KeptSound` gives it. */
  measure<T>(measured: (channels: Float32Array[], clock: KeptClock) => T): T {
    const clock = { sampleRateHz: this.sampleRateHz / 2, startSeconds: this.startSeconds };
    return this.kept.measure((channels) => measured(channels, clock));
  }
}
