import type { Samples } from "./signal";

/** The largest magnitude of the samples from one up to another. */
export function largestMagnitude(x: Samples, from = 0, to = x.length): number {
  let largest = 0;
  for (let i = from; i < to; i++) {
    const magnitude = Math.abs(x[i]);
    if (magnitude > largest) largest = magnitude;
  }
  return largest;
}
