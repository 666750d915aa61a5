import type { Samples } from "./signal";

/** Evenly spaced values that are read piece by piece, so that nothing as long as a recording is copied. */
export interface Values {
  length: number;
  /** Fills a piece with what lies from a place on, all of it within the values, and gives it back. */
  read(from: number, piece: Float64Array): Float64Array;
}

/** So many are read at once: what a processor has at hand. */
export const PIECE = 1 << 14;

/** What is kept at once where values cost more to make than to keep. */
const MOST_KEPT = 1 << 20;

/** The same values, made once for all who read them; of very many each time anew. */
export const kept = (values: Values): Values =>
  values.length > MOST_KEPT ? values : valuesOf(allOf(values));

export const allOf = (values: Values): Float64Array => values.read(0, new Float64Array(values.length));

export const valuesOf = (x: Samples): Values => ({
  length: x.length,
  read(from, piece) {
    piece.set(x.subarray(from, from + piece.length));
    return piece;
  },
});

/** What lies between each value and the next, times a factor; nought behind the last. */
export const stepsOf = (x: Samples, factor: number): Values => ({
  length: x.length,
  read(from, piece) {
    const last = x.length - 1;
    for (let k = 0; k < piece.length; k++)
      piece[k] = from + k < last ? (x[from + k + 1] - x[from + k]) * factor : 0;
    return piece;
  },
});

/**
 * Reads values from one place up to another in their order, in pieces of one size that are all read into the same room:
 * nothing may be kept of one. What lies outside the values is their mirror image (`readMirrored`).
 * @param take with the place that the piece begins at
 */
export function eachPiece(
  values: Values,
  { from, to }: { from: number; to: number },
  take: (piece: Float64Array, at: number) => void,
): void {
  const room = new Float64Array(Math.min(PIECE, Math.max(0, to - from)));
  for (let at = from; at < to; at += PIECE)
    take(readMirrored(values, at, room.subarray(0, Math.min(PIECE, to - at))), at);
}

/**
 * Fills a piece with values from a place on, some of which may lie before the first or behind the last, by no more than
 * there are values: there they go on as their own mirror image, so that filters run in.
 */
export function readMirrored(values: Values, from: number, piece: Float64Array): Float64Array {
  const { length } = values;
  const to = from + piece.length;
  const part = (first: number, last: number) => piece.subarray(first - from, last - from);
  if (from < 0) {
    const before = Math.min(to, 0);
    values.read(-before, part(from, before)).reverse();
  }
  const [first, last] = [Math.max(from, 0), Math.min(to, length)];
  if (first < last) values.read(first, part(first, last));
  if (to > length) values.read(2 * length - to, part(Math.max(from, length), to)).reverse();
  return piece;
}
