import { amplitudeOf } from "@/core/dsp/decibels";
import { SeededRandom } from "@/core/dsp/seeded-random";

/** How often and how far a tape loses contact with the head. */
export interface Wear {
  /** Of each track. */
  dropOutsPerMinute: number;
  depthDb: number;
  seconds: number;
}

interface DropOut {
  from: number;
  to: number;
  gain: number;
}

/** The edges of a drop-out are as steep as the tape lifts off. */
const EDGE_SECONDS = 0.002;
/** Every other one is as wide as both tracks. */
const BOTH_SHARE = 0.5;

/** The places of a side at which the tape does not lie well on the head: the same each time it is played. */
export class WornPlaces {
  private readonly known = new Map<number, [DropOut[], DropOut[]]>();
  private last: { second: number; drops: [DropOut[], DropOut[]] } | null = null;

  constructor(
    private readonly wear: Wear,
    private readonly seed: number,
  ) {}

  /** What is left of a track at a place, as an amplitude ratio. */
  gain(track: 0 | 1, seconds: number): number {
    const second = Math.floor(seconds);
    if (this.last?.second !== second) this.last = { second, drops: this.within(second) };
    const drops = this.last.drops[track];
    let gain = 1;
    for (const { from, to, gain: least } of drops) {
      if (seconds <= from || seconds >= to) continue;
      const edge = Math.min(1, (seconds - from) / EDGE_SECONDS, (to - seconds) / EDGE_SECONDS);
      gain = Math.min(gain, least ** edge);
    }
    return gain;
  }

  /** Those that begin in a second of the side. */
  private within(second: number): [DropOut[], DropOut[]] {
    const known = this.known.get(second);
    if (known) return known;
    const random = new SeededRandom(this.seed + 7919 * (second + 1));
    const { dropOutsPerMinute, depthDb, seconds } = this.wear;
    const drops: [DropOut[], DropOut[]] = [[], []];
    // half of them on both tracks: each track has as many as it is said to have
    const alone = (1 - BOTH_SHARE) * (dropOutsPerMinute / 60);
    const together = BOTH_SHARE * (dropOutsPerMinute / 60);
    const one = (): DropOut => {
      const length = seconds * (0.6 + 0.8 * random.uniform());
      const from = second + random.uniform() * Math.max(0, 1 - length);
      return { from, to: from + length, gain: amplitudeOf(-depthDb * (0.8 + 0.4 * random.uniform())) };
    };
    if (random.uniform() < together) {
      const both = one();
      drops.forEach((track) => track.push(both));
    }
    for (const track of drops) if (random.uniform() < alone) track.push(one());
    this.known.set(second, drops);
    return drops;
  }
}
