import type { Samples } from "./signal";

/** One array after the other, as a stream's rest and its next block. */
export const joined = (...parts: Samples[]): Float64Array<ArrayBuffer> =>
  filled(new Float64Array(lengthOf(parts)), parts);

/** The same in single precision. */
export const joinedSingles = (...parts: Float32Array[]): Float32Array<ArrayBuffer> =>
  filled(new Float32Array(lengthOf(parts)), parts);

const lengthOf = (parts: readonly Samples[]) => parts.reduce((length, part) => length + part.length, 0);

function filled<S extends Samples>(all: S, parts: readonly Samples[]): S {
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}
