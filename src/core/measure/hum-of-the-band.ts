import { hannWindow } from "@/core/dsp/hann-window";
import type { Samples } from "@/core/dsp/signal";

const MAINS_HZ = [50, 60] as const;
const HARMONICS = 8;
const BLOCK_SECONDS = 1;
/** Hum that is so much stronger while a band plays came with it. */
const STRONGER = 2;

/**
 * Amplitude of hum that is there only while a band plays, so that it cannot be learned around it: the strongest line of
 * the mains, other than those near the tone, that stands up with the band. 0 where there is none, and where there is
 * too little around the band to tell.
 * @param band where it plays, in samples
 * @param isNear whether a line is hidden by the tone
 */
export function humOfTheBand(
  samples: Samples,
  sampleRateHz: number,
  [from, to]: readonly [number, number],
  isNear: (hz: number) => boolean,
): number {
  const size = Math.round(BLOCK_SECONDS * sampleRateHz);
  const blocks = (first: number, last: number) => {
    const starts: number[] = [];
    for (let at = first; at + size <= last; at += size) starts.push(at);
    return starts;
  };
  const lines = MAINS_HZ.flatMap((mains) =>
    Array.from({ length: HARMONICS }, (_, i) => (i + 1) * mains).filter(
      (hz) => !isNear(hz) && hz <= 0.4 * sampleRateHz,
    ),
  );
  // so that the tone beside a line does not leak into it
  const window = hannWindow(size);
  const block = new Float64Array(size);
  /** Amplitude of each line over blocks. */
  const levels = (starts: readonly number[]) => {
    const powers = lines.map(() => 0);
    for (const at of starts) {
      for (let i = 0; i < size; i++) block[i] = samples[at + i] * window[i];
      lines.forEach((hz, i) => (powers[i] += linePower(block, hz / sampleRateHz) / starts.length));
    }
    return powers.map(Math.sqrt);
  };
  const [inside, outside] = [blocks(from, to), [...blocks(0, from), ...blocks(to, samples.length)]];
  if (inside.length === 0 || outside.length === 0) return 0;
  const around = levels(outside);
  return Math.max(0, ...levels(inside).filter((heard, i) => heard > STRONGER * around[i]));
}

/** Squared amplitude of a line in a windowed block, by Goertzel's recurrence. */
function linePower(block: Float64Array, cyclesPerSample: number): number {
  const twice = 2 * Math.cos(2 * Math.PI * cyclesPerSample);
  let before = 0;
  let last = 0;
  for (let i = 0; i < block.length; i++) {
    const next = block[i] + twice * last - before;
    before = last;
    last = next;
  }
  return (4 * (last * last + before * before - twice * last * before)) / block.length ** 2;
}
