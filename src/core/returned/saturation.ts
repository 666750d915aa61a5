import { ZERO_DBFS, type ReturnedStep } from "./returned";

/** Between two steps the output rises by less than this share of what more was sent: the tape takes no more. */
const RISES_NO_MORE = 0.15;

/**
 * Saturation output level (IEC 60094-5): the highest level that comes back, re 0 level, however much is sent. Null while
 * what comes back still rises at the loudest steps, and where a step clips.
 */
export function saturationOf(steps: readonly ReturnedStep[]): number | null {
  const sound = steps.filter(({ clipped }) => !clipped).toSorted((a, b) => a.sentDbfs - b.sentDbfs);
  const output = sound.map(({ sentDbfs, levelDb }) => sentDbfs + levelDb - ZERO_DBFS);
  const [before, last] = [output.at(-2), output.at(-1)];
  if (before === undefined || last === undefined || sound.length < steps.length) return null;
  const sentMore = sound.at(-1)!.sentDbfs - sound.at(-2)!.sentDbfs;
  return last - before < RISES_NO_MORE * sentMore ? Math.max(...output) : null;
}
