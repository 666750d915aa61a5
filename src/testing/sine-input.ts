import { amplitudeOf } from "@/core/dsp/decibels";
import type { RecordInput } from "@/core/simulator/practice-deck";
import { sampled } from "@/core/dsp/sampled";

/** A tone without an end on both channels, as what a deck records. */
export function sineInput(frequencyHz: number, levelDbfs: number, sampleRateHz: number): RecordInput {
  const step = (2 * Math.PI * frequencyHz) / sampleRateHz;
  const amplitude = amplitudeOf(levelDbfs);
  let at = 0;
  return (frames) => {
    const block = sampled(frames, (i) => amplitude * Math.sin(step * (at + i)));
    at += frames;
    return [block, block.slice()];
  };
}
