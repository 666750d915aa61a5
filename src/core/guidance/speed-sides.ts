import { inForce } from "@/core/records/job-records";
import { SIDES } from "@/core/records/fields";
import type { Adjustment } from "@/core/records/adjustment";
import type { Reading } from "@/core/records/reading";

export interface SideSpeeds {
  /** Latest speed error of each side, percent; null where it was not read. */
  a: number | null;
  b: number | null;
  /** B less A, from two readings with no turn between them; null until there are such two. */
  differencePercent: number | null;
}

/**
 * Speed in one circumstance less that in another, from the latest two readings with no turn between them; null until
 * there are such two.
 */
export function speedDifference(
  readings: Reading[],
  adjustments: Adjustment[],
  circumstance: "side" | "position" | "supply",
  [first, second]: readonly [string, string],
): number | null {
  const turns = inForce(adjustments).map(({ at }) => at);
  const turnsBefore = (at: string) => turns.filter((turn) => turn < at).length;
  const speeds = inForce(readings).filter(({ quantity }) => quantity === "speedError");
  for (const later of speeds.toReversed()) {
    const of = later.context[circumstance];
    if (of !== first && of !== second) continue;
    const other = speeds.findLast(
      (r) =>
        r.context[circumstance] === (of === first ? second : first) &&
        r.at <= later.at &&
        turnsBefore(r.at) === turnsBefore(later.at),
    );
    if (other) return of === second ? later.value - other.value : other.value - later.value;
  }
  return null;
}

/** What is known of the speed of the two sides or directions. A turn moves both, so the difference outlives it. */
export function sideSpeeds(readings: Reading[], adjustments: Adjustment[]): SideSpeeds {
  const latest = (side: "A" | "B") =>
    inForce(readings).findLast(({ quantity, context }) => quantity === "speedError" && context.side === side);
  return {
    a: latest("A")?.value ?? null,
    b: latest("B")?.value ?? null,
    differencePercent: speedDifference(readings, adjustments, "side", SIDES),
  };
}

/**
 * Speed error to aim at on the side that plays: with the error shared the sides end up equally far either way of
 * right (side A at minus half of the difference B − A); otherwise this side at nought.
 */
export function targetFor(
  side: "A" | "B" | undefined,
  differencePercent: number | null,
  share: boolean,
): number {
  if (!share || side === undefined || differencePercent === null) return 0;
  return ((side === "A" ? -1 : 1) * differencePercent) / 2;
}
