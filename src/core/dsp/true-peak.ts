import { kaiserLowpass } from "./kaiser-lowpass";

const FACTOR = 4;
const TAPS_EACH_SIDE = 12;

/**
 * The highest value of the continuous waveform that the samples describe, by fourfold oversampling as
 * ITU-R BS.1770 annex 2 does. Blocks of any length; the last dozen samples wait for those that follow.
 */
export class TruePeak {
  peak = 0;
  private readonly phases: Float64Array[];
  private tail = new Float64Array(2 * TAPS_EACH_SIDE);

  constructor() {
    const design = kaiserLowpass(FACTOR, 0.4, 0.6, 60);
    const centre = (design.length - 1) / 2;
    this.phases = Array.from({ length: FACTOR - 1 }, (_, p) => {
      const taps = Float64Array.from({ length: 2 * TAPS_EACH_SIDE }, (_, j) => {
        const at = centre + (p + 1) + FACTOR * (TAPS_EACH_SIDE - 1 - j);
        return design[at] ?? 0;
      });
      const sum = taps.reduce((a, b) => a + b, 0);
      return taps.map((tap) => tap / sum);
    });
  }

  push(block: Float64Array | Float32Array): void {
    const span = 2 * TAPS_EACH_SIDE;
    const x = new Float64Array(span + block.length);
    x.set(this.tail);
    x.set(block, span);
    let { peak } = this;
    for (let i = 0; i < block.length; i++) {
      const here = Math.abs(x[i + span]);
      if (here > peak) peak = here;
      // between two small samples no crest can stand much above them
      const near = Math.max(Math.abs(x[i + TAPS_EACH_SIDE - 1]), Math.abs(x[i + TAPS_EACH_SIDE]));
      if (near < 0.7 * peak) continue;
      for (const taps of this.phases) {
        let sum = 0;
        for (let j = 0; j < span; j++) sum += taps[j] * x[i + j];
        if (sum > peak) peak = sum;
        else if (-sum > peak) peak = -sum;
      }
    }
    this.peak = peak;
    this.tail = x.slice(block.length);
  }
}
