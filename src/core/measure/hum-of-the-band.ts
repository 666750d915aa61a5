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
  const inside = blocks(from, to);
  const outside = [...blocks(0, from), ...blocks(to, samples.length)];
  if (inside.length === 0 || outside.length === 0) return 0;
  let strongest = 0;
  for (const mains of MAINS_HZ)
    for (let harmonic = 1; harmonic <= HARMONICS; harmonic++) {
      const hz = mains * harmonic;
      if (isNear(hz) || hz > 0.4 * sampleRateHz) continue;
      const level = (starts: number[]) =>
        Math.sqrt(
          starts.reduce((sum, at) => sum + lineOf(samples, at, size, hz / sampleRateHz) ** 2, 0) /
            starts.length,
        );
      const heard = level(inside);
      if (heard > STRONGER * level(outside)) strongest = Math.max(strongest, heard);
    }
  return strongest;
}

/** Amplitude of a line in a block, Hann-windowed so that the tone beside it does not leak in. */
function lineOf(samples: Float64Array, at: number, size: number, cyclesPerSample: number): number {
  const [c, s] = [Math.cos(2 * Math.PI * cyclesPerSample), Math.sin(2 * Math.PI * cyclesPerSample)];
  const [wc, ws] = [Math.cos((2 * Math.PI) / size), Math.sin((2 * Math.PI) / size)];
  let [cos, sin, hannCos, hannSin, re, im] = [1, 0, 1, 0, 0, 0];
  for (let i = 0; i < size; i++) {
    const x = samples[at + i] * (1 - hannCos);
    re += x * cos;
    im += x * sin;
    [cos, sin] = [cos * c - sin * s, sin * c + cos * s];
    [hannCos, hannSin] = [hannCos * wc - hannSin * ws, hannSin * wc + hannCos * ws];
  }
  return (2 * Math.hypot(re, im)) / size;
}
