/**
 * The value below which `share` of the elements lie (0 … 1), by Hoare's selection: no full sort is needed.
 * Reorders `x`. @throws RangeError for an empty array
 */
export function quantileInPlace(x: Float64Array, share: number): number {
  if (x.length === 0) throw new RangeError("a quantile needs at least one element");
  const wanted = Math.min(x.length - 1, Math.floor(share * x.length));
  let low = 0;
  let high = x.length - 1;
  while (low < high) {
    const pivot = x[(low + high) >> 1];
    let i = low;
    let j = high;
    while (i <= j) {
      while (x[i] < pivot) i++;
      while (x[j] > pivot) j--;
      if (i <= j) {
        const swap = x[i];
        x[i++] = x[j];
        x[j--] = swap;
      }
    }
    if (wanted <= j) high = j;
    else if (wanted >= i) low = i;
    else break;
  }
  return x[wanted];
}

/** The element in the middle of the sorted values, of an even number the upper one; NaN of none. */
export function median(values: readonly number[] | Float64Array): number {
  return values.length === 0 ? NaN : quantileInPlace(new Float64Array(values), 0.5);
}
