import type { Samples } from "@/core/dsp/signal";
import type { Bridge } from "./steady-stretch";

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
 * A deviation from nominal as one from its own mean (m = f/f̄ − 1): mean and straight drift are taken out, and the mean
 * carrier becomes the reference.
 */
export function valuesWithoutTrend(values: Values): Values {
  const { length } = values;
  const middle = (length - 1) / 2;
  const sums = { values: 0, moments: 0 };
  eachPiece(values, { from: 0, to: length }, (piece, at) => {
    // what a closure shares is slow to add to: once a piece
    let sum = 0;
    let moment = 0;
    for (let k = 0; k < piece.length; k++) {
      sum += piece[k];
      moment += piece[k] * (at + k - middle);
    }
    sums.values += sum;
    sums.moments += moment;
  });
  const mean = sums.values / length;
  const slope = length > 2 ? sums.moments / ((length * (length * length - 1)) / 12) : 0;
  return {
    length,
    read(from, piece) {
      values.read(from, piece);
      for (let k = 0; k < piece.length; k++)
        piece[k] = (piece[k] - mean - slope * (from + k - middle)) / (1 + mean);
      return piece;
    },
  };
}

/**
 * The same values with straight lines over some places, wider by `edge` elements on either side: what filters have seen
 * of their edges goes too.
 */
export function bridgedValues(values: Values, bridges: readonly Bridge[], edge: number): Values {
  const { length } = values;
  const lines: Array<{ from: number; to: number }> = [];
  for (const bridge of bridges.toSorted((a, b) => a.from - b.from)) {
    const [from, to] = [Math.max(0, bridge.from - edge), Math.min(length, bridge.to + edge)];
    const before = lines.at(-1);
    if (before && from <= before.to) before.to = Math.max(before.to, to);
    else lines.push({ from, to });
  }
  const at = (place: number) => values.read(place, new Float64Array(1))[0];
  const drawn = lines.map(({ from, to }) => ({
    from,
    to,
    begins: at(Math.max(0, from - 1)),
    ends: at(Math.min(length - 1, to)),
  }));
  return {
    length,
    read(from, piece) {
      values.read(from, piece);
      const to = from + piece.length;
      for (const line of drawn)
        for (let i = Math.max(from, line.from); i < Math.min(to, line.to); i++)
          piece[i - from] =
            line.begins + ((line.ends - line.begins) * (i - line.from)) / (line.to - line.from);
      return piece;
    },
  };
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
