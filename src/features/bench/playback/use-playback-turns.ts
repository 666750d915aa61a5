import { useMemo, useState } from "react";
import { azimuthByPhase } from "@/core/alignment/limits";
import { advisePeak, screwLevels, type PeakAdvice } from "@/core/alignment/loudest-point";
import { advisePlayback, quantityToSet, toSet } from "@/core/alignment/playback-advice";
import { guidanceScale, taught } from "@/core/alignment/playback-turns";
import { decimalsOf, QUANTITIES, unitOf, type Quantity } from "@/core/alignment/quantities";
import type { Adjuster, Circumstances, Machine, StationId } from "@/core/alignment/records";
import type { TurnAdvice } from "@/core/alignment/turn-guidance";
import { fixed } from "@/core/formats/number-text";
import { slotOf } from "@/core/machine/practice-slots";
import type { JobView } from "@/features/job/use-job-records";
import type { ToTurn } from "../turn-card";
import { headline, reason } from "../turn-words";
import type { ListenerState } from "../use-listener";
import { usePriorJobs, type PriorJob } from "../use-prior-turns";
import { advisedTurns, useProposedTurns } from "../use-turn-advice";
import { isPlayback } from "./use-playback-numbers";
import type { PlaybackNumbers } from "@/core/alignment/playback-numbers";

export interface PlaybackToTurn extends ToTurn {
  /** The channel that the chosen adjuster acts on; null for both. */
  channel: "left" | "right" | null;
  /** The search for the loudest point, where azimuth is set by it. */
  peak: PeakAdvice | null;
}

/** Which adjuster of a playback station to turn and how far. */
export function usePlaybackTurns(
  view: JobView,
  stationId: StationId,
  numbers: PlaybackNumbers | null,
  listener: ListenerState,
  circumstances: Circumstances,
): PlaybackToTurn {
  const { machine } = view;
  const [chosenId, choose] = useState<string | null>(null);
  const prior = usePriorJobs(view);
  const adjusters = machine.adjusters.filter(
    ({ sets, kind, side, head }) =>
      isPlayback(stationId) &&
      sets === stationId &&
      kind === "turn" &&
      (stationId !== "azimuth" || head === circumstances.head) &&
      (side === undefined || circumstances.side === undefined || side === circumstances.side),
  );
  const quantity = quantityToSet(stationId, numbers);
  const errors = adjusters.map((one) => ({ one, ...toSet(view, stationId, one, numbers) }));
  // without a choice: what is farthest off
  const farthest = errors.toSorted((a, b) => Math.abs(b.value ?? 0) - Math.abs(a.value ?? 0)).at(0);
  const at = errors.find(({ one }) => one.id === chosenId) ?? farthest;
  const adjuster = at?.one;
  const unit = unitOf(quantity);
  const scale = guidanceScale(quantity);
  const before = adjuster ? firstTaught(prior, machine, adjuster, quantity) : [];
  const byPeak = stationId === "azimuth" && !azimuthByPhase(machine);
  const peak = usePeak(view, byPeak ? (adjuster?.id ?? null) : null);
  const advice: TurnAdvice = peak
    ? peakAdvice(peak, numbers?.now.playing?.settled ?? true)
    : adjuster && at
      ? advisePlayback(view, adjuster, quantity, at, before)
      : { kind: "wait" };
  const slot = slotOf(adjuster, machine.adjusters);
  const ladder = view.tape.bands.filter(({ kind }) => kind === "tone").length > 1;
  const uncounted = stationId === "azimuth" && !byPeak && ladder && numbers?.now.phase?.counted === false;
  const [turns, setTurns] = useProposedTurns(advisedTurns(advice), listener, slot);
  const name = QUANTITIES[quantity].toLowerCase();
  return {
    adjusters,
    adjuster,
    choose,
    headline: uncounted
      ? "play the ladder again"
      : at?.value == null && !peak
        ? "play the tape"
        : headline(advice),
    reason: uncounted
      ? "Whole cycles are not counted: a turn by this number could go the wrong way."
      : at?.value == null && !peak
        ? HEAR_FIRST[stationId as keyof typeof HEAR_FIRST]
        : peak
          ? peakReason(peak)
          : reason(advice, { name, unit, scale, decimals: unit === "°" ? 0 : decimalsOf(quantity) }),
    arc: uncounted ? 0 : advice.kind === "turn" || advice.kind === "trial" ? advice.turns : 0,
    turns,
    slot,
    setTurns,
    channel: adjuster?.channel ?? null,
    peak,
  };
}

/** Where the loudest point is, worked out anew only when something was logged; null where it is not sought. */
function usePeak({ readings, adjustments }: JobView, adjusterId: string | null): PeakAdvice | null {
  return useMemo(
    () => (adjusterId === null ? null : advisePeak(screwLevels(readings, adjustments, adjusterId))),
    [adjusterId, readings, adjustments],
  );
}

/** What the latest earlier job that turned an adjuster has taught of it. */
function firstTaught(prior: PriorJob[], machine: Machine, adjuster: Adjuster, quantity: Quantity) {
  for (const records of prior) {
    const turns = taught({ ...records, machine }, adjuster, quantity);
    if (turns.length > 0) return turns;
  }
  return [];
}

const HEAR_FIRST = {
  azimuth: "The tones of the ladder come first, from the lowest up.",
  level: "The reference fluxivity band comes first.",
  response: "The bands come first; stay on the highest to turn the equaliser.",
};

const peakAdvice = ({ kind, turns }: PeakAdvice, settled: boolean): TurnAdvice =>
  !settled
    ? { kind: "wait" }
    : kind === "leave"
      ? { kind: "leave", effect: null }
      : kind === "trial"
        ? { kind: "trial", turns }
        : // the amount is all that the card shows of it
          { kind: "turn", turns, effect: NO_EFFECT };
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
  if (side === null || gainDb === null)
    return `${Math.round(360 * Math.abs(turns))}°, the way that became louder; three levels tell the top.`;
  return `${Math.round(360 * Math.abs(turns))}°. The screw is ${side === "past" ? "past" : "short of"} the loudest point; ${fixed(gainDb, 1)} dB to gain.`;
}
