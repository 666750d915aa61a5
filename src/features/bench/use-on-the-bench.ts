import { useMemo, useState } from "react";
import { layBench } from "@/core/alignment/lay-bench";
import type { ResponseSource } from "@/core/playback/response-runs";
import type { Circumstances } from "@/core/records/reading";
import type { Advised } from "@/core/stations/advised";
import { advisedByTape } from "@/core/stations/advised-by-tape";
import { levelsOfSearch } from "@/core/stations/azimuth-search";
import type { OnTheBench, Told } from "@/core/stations/on-the-bench";
import type { MeasuringStation } from "@/core/stations/station";
import { asTurned, occasionOf, stillTold, toldNext } from "@/core/stations/told";
import type { JobView } from "../job/use-job-records";
import type { ListenerState } from "./listening/use-listener";
import { usePriorJobs } from "./use-prior-jobs";
import { useBiasScrews } from "./use-bias-screws";
import { useThought } from "./use-thought";

interface Standing {
  bench: OnTheBench;
  /** What to turn; null at a station that does not measure. */
  advised: Advised | null;
  chooseAdjuster(id: string): void;
  readFrom(source: ResponseSource): void;
}

/** What the turn card has told, and what of that was thought about last. */
interface Card {
  told: Told | null;
  occasion: string;
  view: JobView;
  heard: ListenerState["heard"];
}

/** What stands on the bench now, and what the station makes of it. */
export function useOnTheBench(
  view: JobView,
  station: MeasuringStation | null,
  listener: ListenerState,
  circumstances: Circumstances,
): Standing {
  const [lay] = useState(layBench);
  const [chosen, choose] = useState<string | null>(null);
  const [source, readFrom] = useState<ResponseSource | null>(null);
  const [card, turnCard] = useState<Card>({ told: null, occasion: "", view, heard: null });
  const prior = usePriorJobs(view);
  const bench = lay({
    records: view,
    tape: view.tape,
    heard: listener.heard,
    session: listener.session,
    circumstances,
    prior,
    peak: null,
    told: null,
    readFrom: source,
  });
  const peak = usePeak(bench, station, chosen, listener);
  const { here, tape } = bench;
  const hears = bench.heard !== null;
  const occasion = useMemo(
    () => (station && hears ? occasionOf(station.id, { here, tape, circumstances }) : ""),
    [station, hears, here, tape, circumstances],
  );
  const screws = useBiasScrews(station?.learns(bench) ?? [], listener.thinker);
  const standing = { ...bench, peak, screws, told: stillTold(card.told, occasion) };
  const advised = station && advisedByTape(station, standing, chosen);
  // thought about once for each thing that was heard or stored
  if (card.occasion !== occasion || card.view !== view || card.heard !== listener.heard) {
    const told = advised && hears ? toldNext(standing.told, occasion, advised) : null;
    turnCard({ told, occasion, view, heard: listener.heard });
  }
  return {
    bench: standing,
    advised: advised && asTurned(standing.told, advised),
    chooseAdjuster: choose,
    readFrom,
  };
}

/** Where the loudest point is, thought out anew only when something was logged; null where it is not sought. */
function usePeak(
  bench: OnTheBench,
  station: MeasuringStation | null,
  chosenId: string | null,
  { thinker }: ListenerState,
) {
  const { machine } = bench.here;
  const adjuster = station?.seeksPeak(machine) ? station.advise(bench, chosenId).adjuster : undefined;
  const levels = adjuster ? levelsOfSearch(bench, adjuster.id) : null;
  return useThought(thinker, "peak", "peak", JSON.stringify(levels), levels && { levels });
}
