import { joined } from "@/core/dsp/joined";
import type { Stereo } from "./stereo";
import type { TapeSide } from "./tape";
import { TapeRecorder } from "./tape-recorder";

/** The head that records, from the pressing of the key to its release: the flux that comes out of the amplifiers late goes where it belongs. */
export class RecordHead {
  private readonly recorder: TapeRecorder;
  /** Places on the side that the amplifiers' delay still holds back. */
  private waiting = new Float64Array(0);

  /** @param delayFrames by which flux comes later than what went in */
  constructor(
    side: TapeSide,
    private readonly delayFrames: number,
  ) {
    this.recorder = new TapeRecorder(side);
  }

  /**
   * Puts flux on the tape, each sample where it passed the head.
   * @param places those of what went in for this flux, one for each sample
   * @param residue what the erase head leaves of what was there, as an amplitude ratio
   */
  push(flux: Readonly<Stereo>, places: Float64Array, residue: number): void {
    const all = joined(this.waiting, places);
    // the first samples that come out went in before the key was pressed
    const late = Math.max(0, Math.min(places.length, this.delayFrames - this.waiting.length));
    const due = all.subarray(0, places.length - late);
    this.waiting = all.slice(due.length);
    const [left, right] = flux.map((x) => x.slice(late));
    if (due.length > 0) this.recorder.push(left, right, due, residue);
  }

  stop(): void {
    this.recorder.stop();
  }
}
