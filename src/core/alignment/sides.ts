import { inForce, type Adjustment, type Reading } from "./records";

export interface SideSpeeds {
  /** Latest speed error of each side, percent; null where it was not read. */
  a: number | null;
  b: number | null;
  /** B less A, from two readings with no turn between them; null until there are such two. */
  differencePercent: number | null;
}

/** What is known of the speed of the two sides or directions. A turn moves both, so the difference outlives it. */
export function sideSpeeds(readings: Reading[], adjustments: Adjustment[]): SideSpeeds {
  const speeds = inForce(readings).filter(({ quantity }) => quantity === "speedError");
  const turns = inForce(adjustments).map(({ at }) => at);
  const turnsBefore = (at: string) => turns.filter((turn) => turn < at).length;
  const latest = (side: "A" | "B") => speeds.findLast(({ context }) => context.side === side);
  let differencePercent: number | null = null;
  for (const second of speeds.toReversed()) {
    const { side } = second.context;
    if (side === undefined) continue;
    const first = speeds.findLast(
      (r) =>
        r.context.side !== undefined &&
        r.context.side !== side &&
        r.at <= second.at &&
        turnsBefore(r.at) === turnsBefore(second.at),
    );
    if (!first) continue;
    differencePercent = side === "B" ? second.value - first.value : first.value - second.value;
    break;
  }
  return { a: latest("A")?.value ?? null, b: latest("B")?.value ?? null, differencePercent };
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
