import { OUTPUT_GONE, playOn } from "./play-on";

/** One of two sounds that are played side by side. */
export interface SwitchedSound {
  channels: Float32Array[];
  sampleRateHz: number;
  /** Amplitude ratio that makes it as loud as the other. */
  gain: number;
  /** Where in it the passage begins that both have. */
  fromSeconds: number;
}

const FADE_SECONDS = 0.008;

/**
 * Plays two sounds at once, of which one is heard; changing between them leaves no gap and no click. Both go round
 * together over the passage that they have in common.
 */
export class SwitchedPlayer {
  private readonly context = new AudioContext({ latencyHint: "interactive" });
  private readonly gains: GainNode[];
  private readonly sources: AudioBufferSourceNode[];

  /** @param seconds of the passage. @throws Error with a sentence where the output cannot be opened */
  constructor(
    private readonly sounds: readonly [SwitchedSound, SwitchedSound],
    private readonly seconds: number,
  ) {
    this.gains = sounds.map(() => this.context.createGain());
    this.sources = sounds.map(({ channels, sampleRateHz }, i) => {
      const buffer = this.context.createBuffer(channels.length, channels[0].length, sampleRateHz);
      channels.forEach((channel, c) => buffer.copyToChannel(Float32Array.from(channel), c));
      const source = new AudioBufferSourceNode(this.context, { buffer, loop: true });
      source.connect(this.gains[i]).connect(this.context.destination);
      return source;
    });
  }

  /** Starts both on a device, null for the default one, and lets one be heard. */
  async start(heard: 0 | 1, outputId: string | null): Promise<void> {
    await playOn(this.context, outputId).catch(() => {
      throw new Error(OUTPUT_GONE);
    });
    await this.context.resume();
    if (this.context.state !== "running") throw new Error(OUTPUT_GONE);
    this.gains.forEach((gain, i) => (gain.gain.value = i === heard ? this.sounds[i].gain : 0));
    const at = this.context.currentTime + 0.05;
    this.sources.forEach((source, i) => {
      const { fromSeconds } = this.sounds[i];
      source.loopStart = fromSeconds;
      source.loopEnd = fromSeconds + this.seconds;
      source.start(at, fromSeconds);
    });
  }

  hear(which: 0 | 1): void {
    const now = this.context.currentTime;
    this.gains.forEach((gain, i) => {
      gain.gain.cancelScheduledValues(now);
      gain.gain.setTargetAtTime(i === which ? this.sounds[i].gain : 0, now, FADE_SECONDS / 3);
    });
  }

  stop(): void {
    if (this.context.state !== "closed") void this.context.close();
  }
}
