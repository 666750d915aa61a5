export type Verdict = "pass" | "close" | "fail";

/**
 * Whether a value lies within ±limit with its uncertainty counted in: pass or fail only when the whole of
 * value ± uncertainty lies on one side of the limit, close otherwise. All in one unit.
 */
export function verdictOf(value: number, uncertainty: number, limit: number): Verdict {
  const distance = Math.abs(value);
  if (distance + uncertainty <= limit) return "pass";
  if (distance - uncertainty > limit) return "fail";
  return "close";
}
