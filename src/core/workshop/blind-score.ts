/** The probability to have at least so many right by tossing a coin (binomial, p = ½). */
export function chanceOf(right: number, of: number): number {
  let ways = 1;
  let sum = 0;
  for (let k = 0; k <= of; k++) {
    if (k >= right) sum += ways;
    ways = (ways * (of - k)) / (k + 1);
  }
  return sum / 2 ** of;
}
