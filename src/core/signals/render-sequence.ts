import { amplitudeDb, amplitudeOf } from "@/core/dsp/decibels";
import { noisePeriod } from "@/core/dsp/periodic-noise";
import type { Sequence } from "./sequence";
import { timelineOf, type Part } from "./timeline";

/** A mark's tones always swell and fade this long; segments as the sequence says. */
const MARK_FADE_SECONDS = 0.005;

/**
 * A sequence as sound, block by block, stereo, full scale = ±1. Every sample is computed from its own number, so a
 * frequency is exact to the sample clock however long the sequence runs, and any block can be had by itself.
 * @throws RangeError when a frequency does not fit the sample rate, or noise is so loud that it clips
 */
export class SequenceRenderer {
  readonly frames: number;
  private readonly parts: Array<Part & { from: number; to: number }>;

  constructor(
    private readonly sequence: Sequence,
    readonly sampleRateHz: number,
  ) {
    const { parts, seconds } = timelineOf(sequence);
    this.frames = Math.round(seconds * sampleRateHz);
    this.parts = parts.map((part) => ({
      ...part,
      from: Math.round(part.startSeconds * sampleRateHz),
      to: Math.round((part.startSeconds + part.seconds) * sampleRateHz),
    }));
    for (const { sound } of parts) requireRenderable(sound, sampleRateHz);
  }

  /** Left and right from sample `start` on; beyond the end there is silence. */
  block(start: number, frames: number): [Float64Array, Float64Array] {
    const left = new Float64Array(frames);
    const right = new Float64Array(frames);
    for (const part of this.parts) {
      const from = Math.max(part.from, start);
      const to = Math.min(part.to, start + frames);
      if (from >= to) continue;
      const wave = this.wave(part, from - part.from, to - from);
      if (part.channels !== "right") left.set(wave, from - start);
      if (part.channels !== "left") right.set(wave, from - start);
    }
    return [left, right];
  }

  *blocks(framesPerBlock = 16384): Generator<[Float64Array, Float64Array]> {
    for (let at = 0; at < this.frames; at += framesPerBlock)
      yield this.block(at, Math.min(framesPerBlock, this.frames - at));
  }

  /** Samples of one part, counted from where it begins. */
  private wave({ sound, role, from, to }: Part & { from: number; to: number }, first: number, count: number) {
    const rate = this.sampleRateHz;
    const wave = new Float64Array(count);
    const length = to - from;
    if (sound.kind === "silence") return wave;
    const gain = amplitudeOf(sound.levelDb);
    if (sound.kind === "tones") {
      const each = gain / sound.frequenciesHz.length;
      for (const hz of sound.frequenciesHz)
        for (let i = 0; i < count; i++) {
          const cycles = (hz * (first + i)) / rate;
          wave[i] += each * Math.sin(2 * Math.PI * (cycles - Math.floor(cycles)));
        }
    } else if (sound.kind === "sweep") {
      // exponential sweep: the frequency is the first at the first sample and the last where it ends
      const span = Math.log(sound.toFrequencyHz / sound.frequencyHz);
      const seconds = length / rate;
      for (let i = 0; i < count; i++) {
        const t = (first + i) / rate;
        const cycles =
          span === 0
            ? sound.frequencyHz * t
            : ((sound.frequencyHz * seconds) / span) * Math.expm1((t / seconds) * span);
        wave[i] = gain * Math.sin(2 * Math.PI * (cycles - Math.floor(cycles)));
      }
    } else {
      const period = noisePeriod(sound.kind, rate);
      for (let i = 0; i < count; i++) wave[i] = gain * Math.SQRT1_2 * period[(first + i) % period.length];
    }
    const fade = Math.round((role === "mark" ? MARK_FADE_SECONDS : this.sequence.fadeSeconds) * rate);
    for (let i = 0; i < count; i++) {
      const fromEdge = Math.min(first + i, length - 1 - first - i);
      if (fromEdge < fade) wave[i] *= 0.5 - 0.5 * Math.cos((Math.PI * (fromEdge + 0.5)) / fade);
    }
    return wave;
  }
}

function requireRenderable(sound: Part["sound"], sampleRateHz: number): void {
  const highest =
    sound.kind === "tones"
      ? Math.max(...sound.frequenciesHz)
      : sound.kind === "sweep"
        ? Math.max(sound.frequencyHz, sound.toFrequencyHz)
        : 0;
  if (highest >= 0.49 * sampleRateHz)
    throw new RangeError(
      `${highest} Hz does not fit a sample rate of ${sampleRateHz} Hz; take a lower frequency or a higher rate`,
    );
  if (sound.kind === "pink" || sound.kind === "white") {
    const crest = noisePeriod(sound.kind, sampleRateHz).reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    const loudest = -amplitudeDb(crest * Math.SQRT1_2);
    if (sound.levelDb > loudest)
      throw new RangeError(
        `${sound.kind} noise at ${sound.levelDb} dB would clip; it may be up to ${Math.floor(loudest * 10) / 10} dB`,
      );
  }
}
