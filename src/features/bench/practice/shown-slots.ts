import type { Machine } from "@/core/records/machine";
import type { TapeType } from "@/core/standards/tape-types";
import { slotOf } from "@/core/simulator/practice-slots";
import type { MeasuringStation } from "@/core/stations/station";

/** A slot of the practice machine that shows in its drawer. */
export interface ShownSlot {
  name: string;
  slot: number;
}

/** What of the practice machine can be turned at a station; the speed where nothing is, as with flutter. */
export function shownSlots(
  { adjusters }: Machine,
  { adjusters: uses, id }: MeasuringStation,
  tapeType: TapeType | null,
): ShownSlot[] {
  const of = (sets: string) =>
    adjusters
      .filter((one) => one.kind === "turn" && one.sets === sets)
      .filter((one) => tapeType === null || one.tapeType === undefined || one.tapeType === tapeType)
      .flatMap((one) => {
        const slot = slotOf(one, adjusters);
        return slot === null ? [] : [{ name: one.name, slot }];
      });
  if (uses.some(({ kind }) => kind === "turn") && id !== "speed") return of(id);
  const speed = of("speed");
  return speed.length > 0 ? speed : [{ name: "speed", slot: 0 }];
}
