/** How bad each is for a whole that has several, the worst first. */
export const VERDICTS = ["fail", "cannot be told", "close", "pass"] as const;
export type Verdict = (typeof VERDICTS)[number];

/**
 * Whether a value lies within ±limit with its uncertainty counted in: pass or fail only when the whole of
 * value ± uncertainty lies on one side of the limit, close otherwise. A value whose uncertainty is wider than the limit
 * says nothing about it, unless all of it lies outside. All in one unit.
 * @param atLeast the limit is a floor: what passes is that or more
 */
export function verdictOf(value: number, uncertainty: number, limit: number, atLeast = false): Verdict {
  if (atLeast) return verdictOnFloor(value, uncertainty, limit);
  const distance = Math.abs(value);
  if (distance - uncertainty > limit) return "fail";
  if (!(uncertainty <= limit) || Number.isNaN(distance)) return "cannot be told";
  return distance + uncertainty <= limit ? "pass" : "close";
}

function verdictOnFloor(value: number, uncertainty: number, least: number): Verdict {
  if (value - uncertainty >= least) return "pass";
  if (value + uncertainty < least) return "fail";
  return uncertainty <= Math.abs(least) && !Number.isNaN(value) ? "close" : "cannot be told";
}

/** The worst of several; null of none. */
export const worstVerdict = (verdicts: readonly Verdict[]): Verdict | null =>
  VERDICTS.find((one) => verdicts.includes(one)) ?? null;
