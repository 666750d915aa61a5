/** What a line of the mains usually comes from. */
export function humMeans(frequencyHz: number): string {
  const nearest = [50, 60].toSorted(
    (a, b) =>
      Math.abs(frequencyHz / a - Math.round(frequencyHz / a)) -
      Math.abs(frequencyHz / b - Math.round(frequencyHz / b)),
  )[0];
  const order = Math.round(frequencyHz / nearest);
  if (order === 1) return "a field of the transformer, an open screen, an earth loop";
  return order % 2 === 0 ? "ripple of the supply, a tired capacitor" : "a field of the transformer or motor";
}
