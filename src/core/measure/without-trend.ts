/**
 * A deviation from nominal as one from its own mean (m = f/f̄ − 1): mean and straight drift are taken out, and the mean
 * carrier becomes the reference.
 */
export function withoutTrend(deviation: Float64Array): Float64Array {
  const n = deviation.length;
  let sum = 0;
  let moment = 0;
  for (let i = 0; i < n; i++) {
    sum += deviation[i];
    moment += deviation[i] * (i - (n - 1) / 2);
  }
  const mean = sum / n;
  const slope = n > 2 ? moment / ((n * (n * n - 1)) / 12) : 0;
  return deviation.map((d, i) => (d - mean - slope * (i - (n - 1) / 2)) / (1 + mean));
}
