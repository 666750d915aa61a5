import { joined } from "@/core/dsp/joined";
import { INTERPOLATOR_REACH, interpolateIn } from "@/core/dsp/sinc-interpolator";
import { GRID_PER_SECOND, type TapeSide } from "./tape";

/** Level, relative to reference, at which tape saturates: gives 1 % third harmonic at 0 dB. */
const SATURATION = 2.9;

/**
 * The record side of a deck: level, saturation, and the writing of each sample where the tape is when it passes the
 * head, so that the recording carries the flutter of the deck that made it. Writes a block behind, because a grid
 * point between two samples needs those that follow.
 */
export class TapeRecorder {
  private held: Block | null = null;
  private before: Pair = [new Float64Array(INTERPOLATOR_REACH), new Float64Array(INTERPOLATOR_REACH)];

  constructor(
    private readonly side: TapeSide,
    /** From what goes in to the flux of a track, as it stands now. */
    private readonly gain: (channel: 0 | 1) => number,
  ) {}

  /** Takes a block of input with the place on the side, in seconds, that each sample falls on. */
  push(left: Float64Array, right: Float64Array, places: Float64Array): void {
    if (this.held) this.write(this.held, [left, right]);
    this.held = { sound: [left, right], places };
  }

  /** Writes what is held back. */
  stop(): void {
    const none = new Float64Array(0);
    if (this.held) this.write(this.held, [none, none]);
    this.held = null;
  }

  private write({ sound, places }: Block, next: Pair): void {
    const n = places.length;
    const [leftGain, rightGain] = [this.gain(0), this.gain(1)];
    // as much on both sides as an interpolation at the edges reaches for, silence where the next block is short
    const silence = new Float64Array(INTERPOLATOR_REACH + 1);
    const [left, right] = sound.map((here, c) => joined(this.before[c], here, next[c], silence));
    for (let i = 0; i < n; i++) {
      const from = places[i] * GRID_PER_SECOND;
      const to = (i + 1 < n ? places[i + 1] : 2 * places[i] - places[Math.max(0, i - 1)]) * GRID_PER_SECOND;
      for (let g = Math.max(0, Math.ceil(from)); g < to; g++) {
        const at = INTERPOLATOR_REACH + i + (g - from) / (to - from);
        this.side.write(
          g,
          onTape(leftGain * interpolateIn(left, at)),
          onTape(rightGain * interpolateIn(right, at)),
        );
      }
    }
    this.before = [left, right].map((x) => x.slice(n, n + INTERPOLATOR_REACH)) as Pair;
  }
}

type Pair = [Float64Array, Float64Array];

interface Block {
  sound: Pair;
  places: Float64Array;
}

const onTape = (value: number): number => SATURATION * Math.tanh(value / SATURATION);
