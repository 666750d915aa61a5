import type { Samples } from "./signal";

/** One array after the other, as a stream's rest and its next block. */
export function joined(...parts: Samples[]): Float64Array<ArrayBuffer> {
  const all = new Float64Array(parts.reduce((length, part) => length + part.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}
