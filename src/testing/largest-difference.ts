/**
 * By how much samples differ at most from those that are wanted, from a place of these on; infinite where some of them are
 * no numbers or have no partner. One assertion for all of them, not one for each.
 */
export function largestDifference(found: ArrayLike<number>, wanted: ArrayLike<number>, from = 0): number {
  let largest = 0;
  for (let i = 0; i < found.length; i++) {
    const difference = Math.abs(found[i] - wanted[from + i]);
    if (!(difference <= largest)) largest = difference;
    if (Number.isNaN(largest)) return Infinity;
  }
  return largest;
}
