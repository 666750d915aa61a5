import { firRow, KernelRoom } from "./fir-kernel";
import { kaiserLowpass } from "./kaiser-lowpass";
import { largestMagnitude } from "./largest-magnitude";
import { sampled } from "./sampled";
import type { Samples } from "./signal";

const FACTOR = 4;
const TAPS_EACH_SIDE = 12;
/** Looked at together: where none of so many samples comes near the peak, no crest between them does. */
const CHUNK = 256;
/** Between two samples no crest can stand much above them. */
const NEAR = 0.7;

/**
 * The highest value of the continuous waveform that the samples describe, by fourfold oversampling as
 * ITU-R BS.1770 annex 2 does. Blocks of any length; the last dozen samples wait for those that follow.
 */
export class TruePeak {
  peak = 0;
  /** Of the three places between two samples. */
  private readonly rows: Float32Array[];
  private readonly tail = new Float32Array(2 * TAPS_EACH_SIDE);
  /** For what waits and the block behind it, used again each time. */
  private room = new Float32Array(0);

  constructor() {
    const design = kaiserLowpass(FACTOR, 0.4, 0.6, 60);
    const centre = (design.length - 1) / 2;
    this.rows = Array.from({ length: FACTOR - 1 }, (_, p) => {
      const taps = sampled(2 * TAPS_EACH_SIDE, (j) => {
        const at = centre + (p + 1) + FACTOR * (TAPS_EACH_SIDE - 1 - j);
        return design[at] ?? 0;
      });
      const sum = taps.reduce((a, b) => a + b, 0);
      return firRow(taps.map((tap) => tap / sum));
    });
  }

  push(block: Samples): void {
    const span = 2 * TAPS_EACH_SIDE;
    if (this.room.length < span + block.length) this.room = new Float32Array(span + block.length);
    const x = this.room;
    x.set(this.tail);
    x.set(block, span);
    let bench: Bench | null = null;
    for (let at = 0; at < block.length; at += CHUNK) {
      const count = Math.min(CHUNK, block.length - at);
      this.peak = Math.max(this.peak, largestMagnitude(x, at + span, at + span + count));
      // each place lies between two samples that stand half a span later
      const around = largestMagnitude(x, at + TAPS_EACH_SIDE - 1, at + TAPS_EACH_SIDE + count);
      if (around < NEAR * this.peak) continue;
      bench ??= benchFor(this.rows);
      this.peak = Math.max(this.peak, highestBetween(x, at, count, bench));
    }
    this.tail.set(x.subarray(block.length, block.length + span));
  }
}

/** What stands where in the kernel's memory while one block is looked at. */
interface Bench {
  room: KernelRoom;
  samples: number;
  rows: number[];
  between: number[];
}

function benchFor(rows: readonly Float32Array[]): Bench {
  const span = 2 * TAPS_EACH_SIDE;
  const room = new KernelRoom(span + CHUNK + rows.length * (span + CHUNK));
  return {
    room,
    samples: room.place(span + CHUNK),
    rows: rows.map((row) => room.put(row)),
    between: rows.map(() => room.place(CHUNK)),
  };
}

/** The largest magnitude at the three places between each two samples. */
function highestBetween(x: Float32Array, from: number, count: number, bench: Bench): number {
  const { room, samples, between } = bench;
  const [first, second, third] = bench.rows;
  const span = 2 * TAPS_EACH_SIDE;
  room.singles.set(x.subarray(from, from + span + count), samples);
  room.convolve(samples, [first, second], span, 1, count, between[0], between[1]);
  room.convolve(samples, [third], span, 1, count, between[2], between[2]);
  let highest = 0;
  for (const at of between) highest = Math.max(highest, largestMagnitude(room.singles, at, at + count));
  return highest;
}
