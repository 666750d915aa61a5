/** Preferred values of one decade (IEC 60063). */
const SERIES = {
  E6: [1, 1.5, 2.2, 3.3, 4.7, 6.8],
  E12: [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2],
  E24: [
    1, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2, 2.2, 2.4, 2.7, 3, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5,
    8.2, 9.1,
  ],
} as const;
export type Series = keyof typeof SERIES;

/** The preferred value nearest by ratio. @throws RangeError for a value that is not positive */
export function nearestPreferred(value: number, series: Series = "E12"): number {
  if (!(value > 0 && Number.isFinite(value))) throw new RangeError(`no part has the value ${value}`);
  const decade = 10 ** Math.floor(Math.log10(value));
  const choices = [...SERIES[series], 10].map((one) => one * decade);
  const best = choices.reduce((a, b) =>
    Math.abs(Math.log(b / value)) < Math.abs(Math.log(a / value)) ? b : a,
  );
  return Number(best.toPrecision(3));
}

/** Resistors side by side, or capacitors in series. */
export const parallel = (...values: number[]): number =>
  1 / values.reduce((sum, value) => sum + 1 / value, 0);

/**
 * What to put in parallel with a resistor to bring it down to a value, or in series with a capacitor.
 * @throws RangeError when the wanted value is not below the present one
 */
export function parallelFor(present: number, wanted: number): number {
  if (!(wanted > 0 && wanted < present))
    throw new RangeError(`a part in parallel can only bring ${present} down, not to ${wanted}`);
  return 1 / (1 / wanted - 1 / present);
}
