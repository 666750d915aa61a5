import { quantileInPlace } from "@/core/dsp/quantile";

const BLOCK_SECONDS = 0.025;
const FEWEST_BLOCKS = 20;

/**
 * How much the frequency of a tone wavers, percent of it: half of the time it is farther from its mean than this, over
 * blocks of a fortieth of a second. Half, so that a jump of the phase, as when somebody works a switch, does not count.
 * What is locked to the clock that samples it does not waver; what has been on tape does.
 * @param hz of the tone, within a few percent
 * @returns null for less than half a second of sound
 */
export function toneWander(samples: ArrayLike<number>, sampleRateHz: number, hz: number): number | null {
  // a whole number of periods, so that the tone's own mirror image does not beat in the blocks
  const size = Math.round(Math.max(1, Math.round(BLOCK_SECONDS * hz)) * (sampleRateHz / hz));
  const blocks = Math.floor(samples.length / size);
  if (blocks < FEWEST_BLOCKS) return null;
  const step = (2 * Math.PI * hz) / sampleRateHz;
  const [c, s] = [Math.cos(step), Math.sin(step)];
  const phases = new Float64Array(blocks);
  for (let b = 0; b < blocks; b++) {
    let [re, im] = [0, 0];
    const first = b * size;
    let [cos, sin] = [Math.cos(step * first), Math.sin(step * first)];
    for (let i = first; i < first + size; i++) {
      re += samples[i] * cos;
      im -= samples[i] * sin;
      [cos, sin] = [cos * c - sin * s, sin * c + cos * s];
    }
    phases[b] = Math.atan2(im, re);
  }
  const turned = Float64Array.from({ length: blocks - 1 }, (_, b) => {
    const by = phases[b + 1] - phases[b];
    return by - 2 * Math.PI * Math.round(by / (2 * Math.PI));
  });
  const middle = quantileInPlace(Float64Array.from(turned), 0.5);
  const off = turned.map((by) => Math.abs(by - middle));
  return (100 * quantileInPlace(off, 0.5)) / (step * size);
}
