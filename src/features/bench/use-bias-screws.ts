import { useMemo } from "react";
import type { BiasScrew } from "@/core/guidance/bias-screw";
import { AT_ONCE, thoughtOut, type BiasScrews } from "@/core/stations/bias-thought";
import type { Thinker } from "@/workers/thinker";
import { useThoughtsInTurn } from "./use-thought";

const NOTHING = thoughtOut([], []);

/** What is known of the screws that a station asks for, thought out by a worker; at once where that failed. */
export function useBiasScrews(screws: readonly BiasScrew[], thinker: Thinker): BiasScrews {
  const question = screws.length > 0 ? { screws } : null;
  const last = useThoughtsInTurn(thinker, "bias", "bias", JSON.stringify(screws), question);
  return useMemo(() => {
    if (last === null) return NOTHING;
    return last.answer ? thoughtOut(last.question.screws, last.answer) : AT_ONCE;
  }, [last]);
}
