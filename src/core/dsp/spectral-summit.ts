/**
 * Summit of a spectrum between its bins, by a parabola through the logarithms of a bin and its neighbours: how far it
 * lies from bin `k`, in bins, and its height. A bin beside nothing is its own summit.
 */
export function summitNear(values: ArrayLike<number>, k: number): { shift: number; height: number } {
  const [a, b, c] = [k - 1, k, k + 1].map((i) => Math.log(values[i]));
  const bend = a - 2 * b + c;
  if (!(Number.isFinite(bend) && bend < 0)) return { shift: 0, height: values[k] };
  const shift = (0.5 * (a - c)) / bend;
  return { shift, height: Math.exp(b - 0.25 * (a - c) * shift) };
}
