import { Matrix, solve } from "ml-matrix";

/** How far a curve strays from its shape, over what length that hangs together, and how well its points are measured. */
export interface Stray {
  stray: number;
  length: number;
  measured: number;
}

/**
 * A shape led through what was measured: what is left over is a smooth function, and dies away beside the points
 * (Gaussian process regression, Rasmussen and Williams 2006).
 * @param points none leaves the shape as it is
 */
export function curveThroughPoints(
  shape: (x: number) => number,
  points: ReadonlyArray<{ x: number; y: number }>,
  { stray, length, measured }: Stray,
): (x: number) => number {
  if (points.length === 0) return shape;
  const rate = 1 / (2 * length ** 2);
  const alike = (a: number, b: number) => stray ** 2 * Math.exp(-((a - b) ** 2) * rate);
  const covariance = points.map((one, i) =>
    points.map((other, j) => alike(one.x, other.x) + (i === j ? measured ** 2 : 0)),
  );
  const over = Matrix.columnVector(points.map(({ x, y }) => y - shape(x)));
  const weights = solve(new Matrix(covariance), over).to1DArray();
  return (x) => {
    let y = shape(x);
    for (let i = 0; i < points.length; i++) y += weights[i] * alike(x, points[i].x);
    return y;
  };
}
