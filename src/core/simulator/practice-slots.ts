import { RECORD_SLOTS, RECORD_TRIMMERS, recordSlot } from "./record-side";
import type { TapeType } from "@/core/standards/tape-types";

const FIRST_SLOT = { speed: 0, azimuth: 2, level: 4, response: 6 } as const;
const FIRST_RECORD_SLOT = 8;
/** On the front, in the order of the record side. */
const KNOBS = ["bias", "level"] as const;

/** How many slots a practice machine has: two each for speed, azimuth, level and equaliser, then the record side's, then
 * the knobs on the front. */
export const PRACTICE_SLOTS = FIRST_RECORD_SLOT + RECORD_SLOTS + KNOBS.length;

/** What of an adjuster says which slot it is. */
export interface SlotAdjuster {
  id: string;
  sets: string;
  kind: "turn" | "work";
  channel?: "left" | "right";
  side?: "A" | "B";
  tapeType?: TapeType;
  knob?: (typeof KNOBS)[number];
}

/**
 * The slot of a practice machine that an adjuster stands for: the second of its pair for the right channel or the other
 * direction, and for a second adjuster of the speed. Null when it has none.
 */
export function slotOf<T extends SlotAdjuster>(adjuster: T | undefined, all: readonly T[]): number | null {
  if (!adjuster || adjuster.kind !== "turn") return null;
  if (adjuster.knob) return FIRST_RECORD_SLOT + RECORD_SLOTS + KNOBS.indexOf(adjuster.knob);
  const what = RECORD_TRIMMERS.find((one) => one === adjuster.sets);
  if (what) {
    const channel = adjuster.channel === "right" ? 1 : 0;
    return FIRST_RECORD_SLOT + recordSlot(what, channel, adjuster.tapeType ?? null);
  }
  if (!(adjuster.sets in FIRST_SLOT)) return null;
  const sets = adjuster.sets as keyof typeof FIRST_SLOT;
  const alike = all.filter((one) => one.kind === "turn" && one.sets === sets);
  const place = alike.findIndex(({ id }) => id === adjuster.id);
  const second = sets === "speed" ? place : Number(adjuster.channel === "right" || adjuster.side === "B");
  return second > 1 ? null : FIRST_SLOT[sets] + second;
}
