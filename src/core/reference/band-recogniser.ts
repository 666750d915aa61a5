import type { HeardSegment } from "./heard-segment";
import { heardSegments } from "./heard-segments";
import { recogniseBands, type Recognition } from "./recognise-bands";
import { sweepShape, type ReferenceTape } from "./reference-tape";
import { ToneFrames } from "./tone-frames";

/**
 * Hears which band of a reference tape plays. Push blocks of one or more channels (the first two are used), ask
 * at any time, or once after `finish` for a whole recording.
 */
export class BandRecogniser {
  private readonly frames: ToneFrames;

  /** @param keepSeconds bounds what is remembered of a source without an end */
  constructor(sampleRateHz: number, channelCount: number, keepSeconds?: number) {
    this.frames = new ToneFrames(sampleRateHz, channelCount, keepSeconds);
  }

  get seconds(): number {
    return this.frames.length === 0 ? 0 : this.frames.secondsOf(this.frames.length - 1);
  }

  push(block: Array<Float64Array | Float32Array>): void {
    this.frames.push(block);
  }

  /** The recording has ended. */
  finish(): void {
    this.frames.finish();
  }

  recognise(tape: ReferenceTape): Recognition {
    const sweeps = tape.bands.filter(({ kind }) => kind === "sweep").map(sweepShape);
    return recogniseBands(heardSegments(this.frames, sweeps), tape);
  }

  /** The steady tones alone, whatever they belong to. */
  tones(): HeardSegment[] {
    return heardSegments(this.frames).filter(({ kind }) => kind === "tone");
  }
}
