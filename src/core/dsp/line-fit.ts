export interface LineFit {
  /** Value of the line where x is nought. */
  start: number;
  slope: number;
  /** Standard deviation of the slope, from how the points lie about the line. */
  slopeSigma: number;
  /** Root mean square of the distance of the points from the line. */
  scatter: number;
}

/** Least-squares line through points [x, y]; at least two of different x. */
export function lineThrough(points: ReadonlyArray<readonly [x: number, y: number]>): LineFit {
  const n = points.length;
  const meanX = points.reduce((sum, [x]) => sum + x, 0) / n;
  const meanY = points.reduce((sum, [, y]) => sum + y, 0) / n;
  let xx = 0;
  let xy = 0;
  for (const [x, y] of points) {
    xx += (x - meanX) ** 2;
    xy += (x - meanX) * (y - meanY);
  }
  const slope = xy / xx;
  const rest = points.reduce((sum, [x, y]) => sum + (y - meanY - slope * (x - meanX)) ** 2, 0);
  return {
    start: meanY - slope * meanX,
    slope,
    slopeSigma: Math.sqrt(rest / Math.max(1, n - 2) / xx),
    scatter: Math.sqrt(rest / n),
  };
}
