import { inForce, type JobRecords } from "@/core/records/job-records";
import type { Adjuster } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import type { Unit } from "@/core/text/units";
import { learnedTurns, type LearnedTurn } from "./turn-guidance";

/**
 * Turn guidance knows noise and slack in hundredths of a percent; readings of other units are brought to where their
 * own noise is about as large.
 */
const PER_GUIDANCE_UNIT: Record<Unit, number> = {
  "%": 1,
  "°": 100,
  dB: 4,
  dBFS: 1,
  "′": 1,
  s: 1,
  kHz: 1,
  "/min": 1,
};
export const guidanceScale = (unit: Unit): number => PER_GUIDANCE_UNIT[unit];

/** A quantity that something is turned by. */
export interface TurnedBy {
  quantity: string;
  unit: Unit;
  /** What the adjusters of both channels move. */
  ofBothChannels: boolean;
}

/** Whether a reading shows what an adjuster does: of its channel, its direction and its head. */
export const shows =
  ({ channel, side, head }: Adjuster) =>
  ({ context }: Reading): boolean =>
    context.head === head &&
    (channel === undefined || context.channel === channel || context.channel === "both") &&
    (side === undefined || context.side === undefined || context.side === side);

const apart = (one: string | undefined, other: string | undefined) =>
  one !== undefined && other !== undefined && one !== other;

/**
 * What the turns of an adjuster did to a signed quantity, in units of guidance. What was turned meanwhile on the other
 * channel or in the other direction does not spoil it.
 * @param readings of the circumstances that the adjuster is turned in
 */
export function taught(
  { readings, adjustments, machine }: Pick<JobRecords, "readings" | "adjustments" | "machine">,
  adjuster: Adjuster,
  { quantity, unit, ofBothChannels }: TurnedBy,
): LearnedTurn[] {
  const moves = adjustments.filter(({ adjusterId }) => {
    const other = machine.adjusters.find(({ id }) => id === adjusterId);
    if (!other || other.sets !== adjuster.sets) return false;
    const together = ofBothChannels || !apart(other.channel, adjuster.channel);
    return together && !apart(other.side, adjuster.side);
  });
  const scale = guidanceScale(unit);
  const scaled = inForce(readings)
    .filter((r) => r.quantity === quantity)
    .filter(shows(adjuster))
    .map((r) => ({ ...r, value: r.value / scale }));
  return learnedTurns(scaled, moves, adjuster.id);
}
