import type { Advised } from "./advised";
import type { OnTheBench } from "./on-the-bench";
import { saidOfTape } from "./said-of-tape";
import type { MeasuringStation } from "./station";

/** What a station advises. Where it waits for a number that the tape in the machine cannot tell, another tape is asked for. */
export function advisedByTape(
  station: Pick<MeasuringStation, "advise" | "tapeLacks">,
  bench: OnTheBench,
  chosenId: string | null,
): Advised {
  const advised = station.advise(bench, chosenId);
  const waits = advised.advice.kind === "wait" && advised.toSet.value === null;
  const reason = waits && advised.adjusters.length > 0 ? saidOfTape(station, bench) : null;
  return reason === null ? advised : { ...advised, headline: "choose another tape", reason };
}
