import { intoTriangle, solveUpper } from "@/core/dsp/cholesky";
import type { SeededRandom } from "@/core/dsp/seeded-random";
import type { Fitted, Residuals } from "./damped-steps";

/** Places of a walk through what is likely, so many steps apart, which are so long by turns. */
const SAMPLES = 24;
const STEPS_APART = 60;
const STEPS = [0.2, 0.5, 0.9];

/**
 * Values that are about as likely as those of a fit, which come first: places of a walk through what is likely
 * (Metropolis et al. 1953). Where a fit leaves something open, they differ there.
 * @param residuals their cost is twice the negative logarithm of a likelihood
 */
export function likelyValues(
  { cost: costOf, normalEquations }: Residuals,
  { values, cost }: Fitted,
  random: SeededRandom,
): number[][] {
  // steps of covariance (JᵀJ)⁻¹
  const { squares: triangle } = normalEquations(values);
  intoTriangle(triangle, values.length);
  const likely = [values];
  let [here, hereCost] = [values, cost];
  for (let step = 1; step <= SAMPLES * STEPS_APART; step++) {
    const length = STEPS[step % STEPS.length];
    const move = Float64Array.from(here, () => length * random.normal());
    solveUpper(triangle, move);
    const next = here.map((value, i) => value + move[i]);
    const nextCost = costOf(next);
    if (random.uniform() < Math.exp((hereCost - nextCost) / 2)) [here, hereCost] = [next, nextCost];
    if (step % STEPS_APART === 0) likely.push(here);
  }
  return likely;
}
