import { ZERO_DBFS, type ReturnedStep } from "./returned";

/** The third harmonic that sets the maximum output level (IEC 60094-5). */
const MOL_PERCENT = 3;

/**
 * Sent level re 0 level at which the third harmonic reaches 3 %: where it last rises through that, on the curve through
 * the steps around it in decibels of both. Null when it does not within the steps that are measurable.
 */
export function molOf(steps: readonly ReturnedStep[]): number | null {
  const rising = steps
    .flatMap(({ measurable, clipped, sentDbfs, thirdPercent }) =>
      measurable && !clipped && thirdPercent !== null
        ? [{ x: sentDbfs - ZERO_DBFS, y: 20 * Math.log10(thirdPercent / MOL_PERCENT) }]
        : [],
    )
    .toSorted((a, b) => a.x - b.x);
  const after = rising.findLastIndex(({ y }, i) => y >= 0 && i > 0 && rising[i - 1].y < 0);
  if (after < 1) return null;
  // x as a function of y through up to four points around it: Neville's interpolation
  const near = rising.slice(Math.max(0, after - 2), after + 2);
  const grows = near.every(({ y }, i) => i === 0 || y > near[i - 1].y);
  const through = grows ? near : rising.slice(after - 1, after + 1);
  const values = through.map(({ x }) => x);
  for (let span = 1; span < through.length; span++)
    for (let i = 0; i + span < through.length; i++) {
      const [from, to] = [through[i].y, through[i + span].y];
      values[i] = (to * values[i] - from * values[i + 1]) / (to - from);
    }
  return values[0];
}
