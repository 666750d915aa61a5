import type { OnTheBench } from "./on-the-bench";
import type { MeasuringStation } from "./station";

/** What the tape in the machine cannot tell at a station, as a sentence; null for a tape that serves. */
export function saidOfTape(
  station: Pick<MeasuringStation, "tapeLacks">,
  bench: Pick<OnTheBench, "tape" | "here">,
): string | null {
  const lacks = station.tapeLacks(bench);
  return lacks === null ? null : `${bench.tape.name} ${lacks}.`;
}
