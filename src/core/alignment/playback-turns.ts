import { isSigned, unitOf, type Quantity, type Unit } from "./quantities";
import { inForce, type Adjuster, type JobRecords, type Reading, type StationId } from "./records";
import { learnedTurns, type LearnedTurn } from "./turn-guidance";

/**
 * Turn guidance knows noise and slack in hundredths of a percent; readings of other units are brought to where their
 * own noise is about as large.
 */
const PER_GUIDANCE_UNIT: Partial<Record<Unit, number>> = { "°": 100, dB: 4 };
export const guidanceScale = (quantity: Quantity): number => PER_GUIDANCE_UNIT[unitOf(quantity)] ?? 1;

/** What an adjuster of a playback station is set by. */
export function setBy(station: StationId, levelKnown: boolean): Quantity {
  if (station === "azimuth") return "azimuth.phase";
  if (station === "response") return "response.treble";
  return levelKnown ? "level.error" : "level.balance";
}

/** Whether a reading shows what an adjuster does: of its channel, its direction and its head. */
export const shows =
  ({ channel, side, head, sets }: Adjuster) =>
  ({ context }: Reading): boolean =>
    (sets !== "azimuth" || context.head === head) &&
    (channel === undefined || context.channel === channel || context.channel === "both") &&
    (side === undefined || context.side === undefined || context.side === side);

const apart = (one: string | undefined, other: string | undefined) =>
  one !== undefined && other !== undefined && one !== other;

/**
 * What the turns of an adjuster did to a quantity, in units of guidance. What was turned meanwhile on the other channel
 * or in the other direction does not spoil it.
 */
export function taught(
  { readings, adjustments, machine }: Pick<JobRecords, "readings" | "adjustments" | "machine">,
  adjuster: Adjuster,
  quantity: Quantity,
): LearnedTurn[] {
  if (!isSigned(quantity)) return [];
  const moves = adjustments.filter(({ adjusterId }) => {
    const other = machine.adjusters.find(({ id }) => id === adjusterId);
    if (!other || other.sets !== adjuster.sets) return false;
    const together = quantity === "level.balance" || !apart(other.channel, adjuster.channel);
    return together && !apart(other.side, adjuster.side);
  });
  const scale = guidanceScale(quantity);
  const scaled = inForce(readings)
    .filter((r) => r.quantity === quantity)
    .filter(shows(adjuster))
    .map((r) => ({ ...r, value: r.value / scale }));
  return learnedTurns(scaled, moves, adjuster.id);
}
