import { screwLevels, type PeakAdvice, type ScrewLevel } from "@/core/guidance/loudest-point";
import type { TurnAdvice } from "@/core/guidance/turn-guidance";
import { headline } from "@/core/guidance/turn-words";
import { shows } from "@/core/guidance/taught";
import { fixed } from "@/core/text/number-text";
import { actingAdjusters } from "./acting-adjusters";
import type { Advised, ToSet } from "./advised";
import { asLogged, saidUnheard } from "./as-logged";
import type { OnTheBench } from "./on-the-bench";

const HEAR_FIRST = "The treble tone comes first.";

/** What of the search for the loudest point has to be thought out: levels by turns, newest last. */
export function levelsOfSearch({ here }: OnTheBench, adjusterId: string): ScrewLevel[] {
  const adjuster = here.machine.adjusters.find(({ id }) => id === adjusterId);
  // of another direction or head the level shows nothing of this screw
  const own = adjuster ? here.readings.filter(shows(adjuster)) : [];
  return screwLevels(own, here.adjustments, adjusterId);
}

/** Which direction the azimuth screw has to go by the level of the treble alone, as far as that was thought out. */
export function adviseSearch(bench: OnTheBench, toSet: ToSet, chosenId: string | null): Advised {
  const adjusters = actingAdjusters({ id: "azimuth", apartBy: ["head"] }, bench);
  const adjuster = adjusters.find(({ id }) => id === chosenId) ?? adjusters.at(0);
  const peak = adjuster ? bench.peak : null;
  const playing = bench.numbers?.now.playing ?? null;
  const { unheard } =
    playing || !adjuster
      ? {}
      : asLogged(bench, "azimuth", "azimuth.treble", bench.here.readings, shows(adjuster));
  const known = unheard === undefined || unheard === "as logged";
  const advice = peak && known ? asTurn(peak, playing?.settled ?? true) : { kind: "wait" as const };
  const words = {
    headline: headline(advice),
    reason: peak ? peakReason(peak) : "Working out where the top is.",
  };
  return {
    adjusters,
    adjuster,
    toSet,
    target: 0,
    advice,
    ...saidUnheard(unheard, advice, words, HEAR_FIRST),
    readElsewhere: null,
    peak,
  };
}

function asTurn({ kind, turns }: PeakAdvice, settled: boolean): TurnAdvice {
  if (!settled) return { kind: "wait" };
  switch (kind) {
    case "leave":
      return { kind: "leave", effect: null };
    case "trial":
      return { kind: "trial", turns };
    case "turn":
      // the amount is all that the card shows of it
      return { kind: "turn", turns, effect: NO_EFFECT };
  }
}

const NO_EFFECT = {
  perTurn: 0,
  slackTurns: 0,
  slackKnown: false,
  models: [],
  lastTurn: { turns: 0, change: 0 },
};

function peakReason({ kind, side, gainDb, turns }: PeakAdvice): string {
  if (kind === "leave") return "On the loudest point, as near as the level tells. Log it as left.";
  if (kind === "trial")
    return "Log the level, turn a little, and log again: louder or quieter tells the way.";
  const degrees = `${Math.round(360 * Math.abs(turns))}°`;
  if (side === null || gainDb === null)
    return `${degrees}, the way that became louder; three levels tell the top.`;
  return `${degrees}. The screw is ${side === "past" ? "past" : "short of"} the loudest point; ${fixed(gainDb, 1)} dB to gain.`;
}
