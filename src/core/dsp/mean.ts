import type { Samples } from "./signal";

/** Mean of the elements from one place up to another; nought of none. */
export function meanOf(x: Samples, from = 0, to = x.length): number {
  let sum = 0;
  const start = Math.max(0, from);
  for (let i = start; i < to; i++) sum += x[i];
  return sum / Math.max(1, to - start);
}
