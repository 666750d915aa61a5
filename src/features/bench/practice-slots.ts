import type { Machine, StationId } from "@/core/alignment/records";
import { slotOf } from "@/core/machine/practice-slots";

/** A slot of the practice machine that shows in its drawer. */
export interface ShownSlot {
  name: string;
  slot: number;
}

/** What of the practice machine can be turned at a station; the speed at those where nothing is. */
export function practiceSlots({ adjusters }: Machine, station: StationId): ShownSlot[] {
  const of = (sets: string) =>
    adjusters
      .filter((one) => one.kind === "turn" && one.sets === sets)
      .flatMap((one) => {
        const slot = slotOf(one, adjusters);
        return slot === null ? [] : [{ name: one.name, slot }];
      });
  if (station === "azimuth" || station === "level" || station === "response") return of(station);
  const speed = of("speed");
  return speed.length > 0 ? speed : [{ name: "speed", slot: 0 }];
}
