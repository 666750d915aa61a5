import type { Samples } from "@/core/dsp/signal";
import type { Bridge } from "./steady-stretch";

/** Evenly spaced values that are read piece by piece, so that nothing as long as a recording is copied. */
export interface Values {
  length: number;
  /** The values from one place up to another, both within the values; fresh each time. */
  read(from: number, to: number): Float64Array;
}

/** So many are read at once: what a processor has at hand. */
export const PIECE = 1 << 14;

/** What is kept at once where values cost more to make than to keep. */
const MOST_KEPT = 1 << 20;

/** The same values, made once for all who read them; of very many each time anew. */
export const kept = (values: Values): Values =>
  values.length > MOST_KEPT ? values : valuesOf(values.read(0, values.length));

export const valuesOf = (x: Samples): Values => ({
  length: x.length,
  read: (from, to) => new Float64Array(x.subarray(from, to)),
});

/** What lies between each value and the next, times a factor; nought behind the last. */
export const stepsOf = (x: Samples, factor: number): Values => ({
  length: x.length,
  read: (from, to) => {
    const piece = new Float64Array(to - from);
    for (let i = from; i < Math.min(to, x.length - 1); i++) piece[i - from] = (x[i + 1] - x[i]) * factor;
    return piece;
  },
});

/**
 * A deviation from nominal as one from its own mean (m = f/f̄ − 1): mean and straight drift are taken out, and the mean
 * carrier becomes the reference.
 */
export function valuesWithoutTrend(values: Values): Values {
  const { length } = values;
  const middle = (length - 1) / 2;
  let sum = 0;
  let moment = 0;
  for (let from = 0; from < length; from += PIECE) {
    const piece = values.read(from, Math.min(length, from + PIECE));
    for (let k = 0; k < piece.length; k++) {
      sum += piece[k];
      moment += piece[k] * (from + k - middle);
    }
  }
  const mean = sum / length;
  const slope = length > 2 ? moment / ((length * (length * length - 1)) / 12) : 0;
  return {
    length,
    read: (from, to) => {
      const piece = values.read(from, to);
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
  const at = (place: number) => values.read(place, place + 1)[0];
  const drawn = lines.map(({ from, to }) => ({
    from,
    to,
    begins: at(Math.max(0, from - 1)),
    ends: at(Math.min(length - 1, to)),
  }));
  return {
    length,
    read: (from, to) => {
      const piece = values.read(from, to);
      for (const line of drawn)
        for (let i = Math.max(from, line.from); i < Math.min(to, line.to); i++)
          piece[i - from] =
            line.begins + ((line.ends - line.begins) * (i - line.from)) / (line.to - line.from);
      return piece;
    },
  };
}

/**
 * Values from one place up to another that may lie before the first or behind the last, by no more than there are
 * values: there they go on as their own mirror image, so that filters run in.
 */
export function readMirrored(values: Values, from: number, to: number): Float64Array {
  const { length } = values;
  if (from >= 0 && to <= length) return values.read(from, to);
  const piece = new Float64Array(to - from);
  if (from < 0) piece.set(values.read(-Math.min(to, 0), -from).reverse());
  const [first, last] = [Math.max(from, 0), Math.min(to, length)];
  if (first < last) piece.set(values.read(first, last), first - from);
  if (to > length) {
    const behind = Math.max(from, length);
    piece.set(values.read(2 * length - to, 2 * length - behind).reverse(), behind - from);
  }
  return piece;
}
