import { useMemo } from "react";
import type { BiasScrew } from "@/core/guidance/bias-screw";
import { AT_ONCE, thoughtOut, type BiasScrews } from "@/core/stations/bias-thought";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import type { MeasuringStation } from "@/core/stations/station";
import type { Thinker } from "@/workers/thinker";
import { useThoughtsInTurn } from "./use-thought";

const NOTHING = thoughtOut([], []);

/**
 * The bench as it stands, with what its readings tell of the screws thought out by a worker to be kept; what could not be
 * thought out there is worked out where it is kept.
 */
export async function thoughtToKeep(
  bench: OnTheBench,
  station: MeasuringStation,
  thinker: Thinker,
): Promise<OnTheBench> {
  const screws = station.learns(bench);
  if (screws.length === 0) return bench;
  const known = await thinker.ask("bias", "bias to keep", { screws }).catch(() => null);
  return known ? { ...bench, screws: thoughtOut(screws, known) } : bench;
}

/** What is known of the screws that a station asks for, thought out by a worker; at once where that failed. */
export function useBiasScrews(screws: readonly BiasScrew[], thinker: Thinker): BiasScrews {
  const question = screws.length > 0 ? { screws } : null;
  const last = useThoughtsInTurn(thinker, "bias", "bias", JSON.stringify(screws), question);
  return useMemo(() => {
    if (last === null) return NOTHING;
    return last.answer ? thoughtOut(last.question.screws, last.answer) : AT_ONCE;
  }, [last]);
}
