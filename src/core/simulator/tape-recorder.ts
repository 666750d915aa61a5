import { joined } from "@/core/dsp/joined";
import { interpolateMany, INTERPOLATOR_REACH } from "@/core/dsp/sinc-interpolator";
import type { Stereo } from "./stereo";
import { GRID_PER_SECOND, type TapeSide } from "./tape";

/**
 * Writes each sample of flux where the tape is when it passes the head, so that the recording carries the flutter of the
 * deck that made it. Writes a block behind, because a grid point between two samples needs those that follow.
 */
export class TapeRecorder {
  private held: Block | null = null;
  private before: Stereo = [new Float64Array(INTERPOLATOR_REACH), new Float64Array(INTERPOLATOR_REACH)];

  constructor(private readonly side: TapeSide) {}

  /**
   * Takes a block of flux with the place on the side, in seconds, that each sample falls on.
   * @param residue what the erase head leaves of what was there, as an amplitude ratio
   */
  push(left: Float64Array, right: Float64Array, places: Float64Array, residue: number): void {
    if (this.held) this.write(this.held, [left, right]);
    this.held = { sound: [left, right], places, residue };
  }

  /** Writes what is held back. */
  stop(): void {
    const none = new Float64Array(0);
    if (this.held) this.write(this.held, [none, none]);
    this.held = null;
  }

  private write({ sound, places, residue }: Block, next: Stereo): void {
    const n = places.length;
    // as much on both sides as an interpolation at the edges reaches for, silence where the next block is short
    const silence = new Float64Array(INTERPOLATOR_REACH + 1);
    const [left, right] = sound.map((here, c) => joined(this.before[c], here, next[c], silence));
    // the tape runs on, so the grid points follow each other from the first
    const from = (i: number) => places[i] * GRID_PER_SECOND;
    const end = GRID_PER_SECOND * (n > 1 ? 2 * places[n - 1] - places[n - 2] : places[n - 1]);
    const first = Math.max(0, Math.ceil(from(0)));
    const at = new Float64Array(Math.max(0, Math.ceil(end) - first));
    let g = first;
    for (let i = 0; i < n; i++) {
      const to = i + 1 < n ? from(i + 1) : end;
      for (; g < to; g++) at[g - first] = INTERPOLATOR_REACH + i + (g - from(i)) / (to - from(i));
    }
    const [onLeft, onRight] = [left, right].map((x) => {
      const values = new Float64Array(at.length);
      interpolateMany(x, at, values);
      return values;
    });
    this.side.write(first, onLeft, onRight, residue);
    this.before = [left, right].map((x) => x.slice(n, n + INTERPOLATOR_REACH)) as Stereo;
  }
}

interface Block {
  sound: Stereo;
  places: Float64Array;
  residue: number;
}
