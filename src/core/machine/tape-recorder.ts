import { INTERPOLATOR_REACH, interpolate } from "@/core/dsp/sinc-interpolator";
import { GRID_PER_SECOND, type TapeSide } from "./tape";

/** Level, relative to reference, at which tape saturates: gives 1 % third harmonic at 0 dB. */
const SATURATION = 2.9;

/**
 * The record side of a deck: level, saturation, and the writing of each sample where the tape is when it passes the
 * head, so that the recording carries the flutter of the deck that made it. Writes a block behind, because a grid
 * point between two samples needs those that follow.
 */
export class TapeRecorder {
  private before: { left: Float64Array; right: Float64Array; places: Float64Array } | null = null;

  constructor(
    private readonly side: TapeSide,
    private readonly leftGain: number,
    private readonly rightGain: number,
  ) {}

  /** Takes a block of input with the place on the side, in seconds, that each sample falls on. */
  push(left: Float64Array, right: Float64Array, places: Float64Array): void {
    if (this.before) this.write(this.before, left, right);
    this.before = { left, right, places };
  }

  /** Writes what is held back. */
  stop(): void {
    const none = new Float64Array(INTERPOLATOR_REACH + 1);
    if (this.before) this.write(this.before, none, none);
    this.before = null;
  }

  private write(
    block: { left: Float64Array; right: Float64Array; places: Float64Array },
    nextLeft: Float64Array,
    nextRight: Float64Array,
  ): void {
    const { left, right, places } = block;
    const n = left.length;
    const value = (here: Float64Array, next: Float64Array) => (i: number) =>
      i < 0 ? here[0] : i < n ? here[i] : (next[i - n] ?? 0);
    const readLeft = value(left, nextLeft);
    const readRight = value(right, nextRight);
    for (let i = 0; i + 1 < n || (i < n && i > 0); i++) {
      const from = places[i] * GRID_PER_SECOND;
      const to = (i + 1 < n ? places[i + 1] : 2 * places[i] - places[i - 1]) * GRID_PER_SECOND;
      if (to <= from) continue;
      for (let g = Math.ceil(from); g < to; g++) {
        if (g < 0) continue;
        const at = i + (g - from) / (to - from);
        this.side.write(
          g,
          onTape(this.leftGain * interpolate(readLeft, at)),
          onTape(this.rightGain * interpolate(readRight, at)),
        );
      }
    }
  }
}

const onTape = (value: number): number => SATURATION * Math.tanh(value / SATURATION);
