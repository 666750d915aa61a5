import { intoTriangle, solveLower, solveUpper } from "@/core/dsp/cholesky";

/** JᵀJ, n × n row by row and positive definite, and Jᵀr, n. */
export interface NormalEquations {
  squares: Float64Array;
  slope: Float64Array;
}

/** What is to be fitted: values in units of what is usual of them. */
export interface Residuals {
  /** Sum of the squared residuals. */
  cost(values: readonly number[]): number;
  /** Of the residuals at these values. */
  normalEquations(values: readonly number[]): NormalEquations;
}

/** Values and how badly they fit. */
export interface Fitted {
  values: number[];
  cost: number;
}

const FIRST_DAMPING = 1e-2;
const MOST_DAMPING = 1e6;
/** What gains less is not worth another step. */
const LEAST_GAIN = 1e-4;

/** Least squares by damped steps (Marquardt 1963), from a start. @param rounds the most steps that are tried */
export function fitByDampedSteps(
  { cost: costOf, normalEquations }: Residuals,
  start: readonly number[],
  rounds: number,
): Fitted {
  let values = [...start];
  let cost = costOf(values);
  let { squares, slope } = normalEquations(values);
  let damping = FIRST_DAMPING;
  const n = values.length;
  for (let round = 0; round < rounds; round++) {
    const damped = squares.slice();
    for (let i = 0; i < n; i++) damped[i * n + i] *= 1 + damping;
    const step = slope.slice();
    intoTriangle(damped, n);
    solveLower(damped, step);
    solveUpper(damped, step);
    const next = values.map((v, i) => v - step[i]);
    const nextCost = costOf(next);
    if (nextCost < cost) {
      const gained = cost - nextCost;
      [values, cost] = [next, nextCost];
      damping /= 4;
      if (gained < LEAST_GAIN) break;
      ({ squares, slope } = normalEquations(values));
    } else {
      damping *= 6;
      if (damping > MOST_DAMPING) break;
    }
  }
  return { values, cost };
}
