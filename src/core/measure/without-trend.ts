import type { Samples } from "@/core/dsp/signal";
import { allOf, eachPiece, valuesOf, type Values } from "@/core/dsp/values";

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

/** All of it at once. */
export const withoutTrend = (deviation: Samples): Float64Array =>
  allOf(valuesWithoutTrend(valuesOf(deviation)));
