import { quantileInPlace } from "@/core/dsp/quantile";
import { withoutTrend } from "./without-trend";
import { sampled } from "@/core/dsp/sampled";

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
  const blocks = turnedPerBlock(samples, sampleRateHz, hz);
  return blocks && (100 * medianSize(aboutMiddle(blocks.turned))) / (2 * Math.PI * hz * blocks.seconds);
}

/**
 * By how much a tone comes early or late of an even course, microseconds: half of the time it is farther from it than this.
 * Of a whole tone in which nothing was switched this tells better than how its frequency wavers: slow wow adds up in it,
 * noise does not.
 * @param hz of the tone, within a few percent
 * @returns null for less than half a second of sound
 */
export function timingWander(samples: ArrayLike<number>, sampleRateHz: number, hz: number): number | null {
  const blocks = turnedPerBlock(samples, sampleRateHz, hz);
  if (blocks === null) return null;
  let phase = 0;
  const course = aboutMiddle(blocks.turned).map((by) => (phase += by));
  // a straight course is taken out as it is of a deviation, which is told re its own mean
  const mean = course.reduce((sum, at) => sum + at, 0) / course.length;
  return (1e6 * medianSize(withoutTrend(course.map((at) => at - mean)))) / (2 * Math.PI * hz);
}

/** By how much the phase of a tone turns from block to block beyond its own, radians. */
function turnedPerBlock(
  samples: ArrayLike<number>,
  sampleRateHz: number,
  hz: number,
): { turned: Float64Array; seconds: number } | null {
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
  const turned = sampled(blocks - 1, (b) => {
    const by = phases[b + 1] - phases[b];
    return by - 2 * Math.PI * Math.round(by / (2 * Math.PI));
  });
  return { turned, seconds: size / sampleRateHz };
}

function aboutMiddle(turned: Float64Array): Float64Array {
  const middle = quantileInPlace(Float64Array.from(turned), 0.5);
  return turned.map((by) => by - middle);
}

const medianSize = (x: Float64Array): number => quantileInPlace(x.map(Math.abs), 0.5);
