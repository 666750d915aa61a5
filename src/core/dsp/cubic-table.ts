/**
 * A smooth curve through the points of a table by cubic pieces (Catmull and Rom 1974), straight on beyond its ends.
 * @param xs rising, @param ys as many
 */
export function cubicTable(xs: readonly number[], ys: readonly number[], x: number): number {
  const last = xs.length - 1;
  const slope = (i: number) => {
    const [from, to] = [Math.max(0, i - 1), Math.min(last, i + 1)];
    return (ys[to] - ys[from]) / (xs[to] - xs[from]);
  };
  if (x <= xs[0]) return ys[0] + slope(0) * (x - xs[0]);
  if (x >= xs[last]) return ys[last] + slope(last) * (x - xs[last]);
  const i = xs.findIndex((other) => other > x) - 1;
  const width = xs[i + 1] - xs[i];
  const t = (x - xs[i]) / width;
  const [a, b] = [width * slope(i), width * slope(i + 1)];
  return (
    ys[i] * (1 + 2 * t) * (1 - t) ** 2 +
    a * t * (1 - t) ** 2 +
    ys[i + 1] * t * t * (3 - 2 * t) +
    b * t * t * (t - 1)
  );
}
