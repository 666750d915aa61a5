/** `mono` for the only channel, `left` and `right` for the first two of several, then `ch3`… */
export function channelName(index: number, count: number): string {
  if (count === 1) return "mono";
  return ["left", "right"][index] ?? `ch${index + 1}`;
}
