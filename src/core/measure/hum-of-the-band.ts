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
  samples: Float64Array,
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
  const inside = blocks(from, to).map((at) => windowed(samples, at, size));
  const outside = [...blocks(0, from), ...blocks(to, samples.length)].map((at) =>
    windowed(samples, at, size),
  );
  if (inside.length === 0 || outside.length === 0) return 0;
  let strongest = 0;
  for (const mains of MAINS_HZ)
    for (let harmonic = 1; harmonic <= HARMONICS; harmonic++) {
      const hz = mains * harmonic;
      if (isNear(hz) || hz > 0.4 * sampleRateHz) continue;
      const level = (parts: Float64Array[]) =>
        Math.sqrt(parts.reduce((sum, part) => sum + linePower(part, hz / sampleRateHz), 0) / parts.length);
      const heard = level(inside);
      if (heard > STRONGER * level(outside)) strongest = Math.max(strongest, heard);
    }
  return strongest;
}

/** A block, Hann-windowed so that the tone beside a line does not leak into it. */
function windowed(samples: Float64Array, at: number, size: number): Float64Array {
  return samples.slice(at, at + size).map((sample, i) => sample * (1 - Math.cos((2 * Math.PI * i) / size)));
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
