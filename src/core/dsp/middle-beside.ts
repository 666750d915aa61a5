import { quantileInPlace } from "./quantile";

/** So many lines on either side are looked at, at most. */
export const MOST_BESIDE = 40;
const NEAREST = 3;
/** Used again each time: it is asked for hundreds of thousands of times. */
const room = new Float64Array(2 * (MOST_BESIDE + 1));

/**
 * The median of what lies beside a bin of a spectrum, a line apart each, from three lines away on both sides; nought where
 * there is nothing.
 * @param line in bins, as it need not be whole
 * @param lines so many on either side, `MOST_BESIDE` at most
 * @param above bins up to this one are left out
 */
export function middleBeside(
  values: Float64Array,
  k: number,
  { line, lines, above }: { line: number; lines: number; above: number },
): number {
  let count = 0;
  for (let j = NEAREST * line; j < (NEAREST + lines) * line; j += line) {
    const low = Math.round(k - j);
    const high = Math.round(k + j);
    if (low > above) room[count++] = values[low];
    if (high < values.length) room[count++] = values[high];
  }
  return count > 0 ? quantileInPlace(room.subarray(0, count), 0.5) : 0;
}
