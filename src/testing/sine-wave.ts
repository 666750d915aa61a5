/** Each value is turned on from the one before, and begun anew in closed form before rounding can tell: within 1e-12. */
const ANEW_EVERY = 256;

/** sin(2π·(cycles a sample)·i + phase), phase in radians. */
export function sineWave(length: number, cyclesPerSample: number, phase = 0): Float64Array {
  const wave = new Float64Array(length);
  const step = 2 * Math.PI * cyclesPerSample;
  const [cosStep, sinStep] = [Math.cos(step), Math.sin(step)];
  let [re, im] = [0, 0];
  for (let i = 0; i < length; i++) {
    if (i % ANEW_EVERY === 0) {
      const cycles = cyclesPerSample * i;
      const angle = 2 * Math.PI * (cycles - Math.floor(cycles)) + phase;
      [re, im] = [Math.cos(angle), Math.sin(angle)];
    }
    wave[i] = im;
    const turned = re * cosStep - im * sinStep;
    im = im * cosStep + re * sinStep;
    re = turned;
  }
  return wave;
}

/** Σ aₙ·sin(2π·n·cycles) from n = 1 on: each sine from the two before it, sin nθ = 2·cos θ·sin (n − 1)θ − sin (n − 2)θ. */
export function harmonicSum(cycles: number, amplitudes: readonly number[]): number {
  const angle = 2 * Math.PI * cycles;
  const twice = 2 * Math.cos(angle);
  let [before, here, sum] = [0, Math.sin(angle), 0];
  for (const amplitude of amplitudes) {
    sum += amplitude * here;
    [before, here] = [here, twice * here - before];
  }
  return sum;
}
