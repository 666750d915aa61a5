import { useState } from "react";
import { azimuthByPhase, limitFor } from "@/core/alignment/limits";
import { advisePeak, screwLevels, type PeakAdvice } from "@/core/alignment/loudest-point";
import { guidanceScale, setBy, shows, taught } from "@/core/alignment/playback-turns";
import { decimalsOf, QUANTITIES, unitOf, type Quantity } from "@/core/alignment/quantities";
import type { Adjuster, Circumstances, Machine, StationId } from "@/core/alignment/records";
import { inForce } from "@/core/alignment/records";
import { adviseTurn, directionInWords, turnInWords, type TurnAdvice } from "@/core/alignment/turn-guidance";
import { fixed } from "@/core/formats/number-text";
import { slotOf } from "@/core/machine/practice-slots";
import type { JobView } from "@/features/job/use-job-records";
import type { ToTurn } from "../turn-card";
import { headline, reason } from "../turn-words";
import type { ListenerState } from "../use-listener";
import { usePriorJobs, type PriorJob } from "../use-prior-turns";
import { advisedTurns, useProposedTurns } from "../use-turn-advice";
import { isPlayback } from "./use-playback-numbers";
import type { PlaybackNumbers } from "./playback-numbers";

/** Within this share of the limit there is nothing more to gain by turning. */
const GOOD_ENOUGH_SHARE = 0.2;
const SMALLEST_GOOD_ENOUGH = { "°": 3, dB: 0.12, "%": 0.04, "′": 0.1, dBFS: 0.1 };
const USUAL_LIMIT_DB = 1;

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
    ({ sets, kind, side }) =>
      isPlayback(stationId) &&
      sets === stationId &&
      kind === "turn" &&
      (side === undefined || circumstances.side === undefined || side === circumstances.side),
  );
  const levelKnown = numbers?.level?.numbers.channels.every(({ errorDb }) => errorDb !== null) ?? false;
  const quantity = setBy(stationId, levelKnown);
  const errors = adjusters.map((one) => ({ one, ...present(view, stationId, one, numbers, quantity) }));
  // without a choice: what is farthest off
  const farthest = errors.toSorted((a, b) => Math.abs(b.value ?? 0) - Math.abs(a.value ?? 0)).at(0);
  const at = errors.find(({ one }) => one.id === chosenId) ?? farthest;
  const adjuster = at?.one;
  const unit = unitOf(quantity);
  const scale = guidanceScale(quantity);
  const limit = limitFor(machine, quantity) ?? limitFor(machine, "response.worst") ?? USUAL_LIMIT_DB;
  const goodEnough = Math.max(
    SMALLEST_GOOD_ENOUGH[unit],
    GOOD_ENOUGH_SHARE * limit,
    stationId === "azimuth" ? Math.min(0.5 * limit, at?.uncertainty ?? 0) : 0,
  );
  const learned = adjuster ? taught(view, adjuster, quantity) : [];
  const before = adjuster ? firstTaught(prior, machine, adjuster, quantity) : [];
  const byPeak = stationId === "azimuth" && !azimuthByPhase(machine);
  const peak =
    byPeak && adjuster ? advisePeak(screwLevels(view.readings, view.adjustments, adjuster.id)) : null;
  const advice: TurnAdvice = peak
    ? peakAdvice(peak, numbers?.now.playing?.settled ?? true)
    : at?.value == null
      ? { kind: "wait" }
      : adviseTurn(learned, at.value / scale, goodEnough / scale, at.settled, before);
  const slot = slotOf(adjuster, machine.adjusters);
  const [turns, setTurns] = useProposedTurns(advisedTurns(advice), listener, slot);
  const name = QUANTITIES[quantity].toLowerCase();
  return {
    adjusters,
    adjuster,
    choose,
    headline: at?.value == null && !peak ? "play the tape" : headline(advice),
    reason:
      at?.value == null && !peak
        ? HEAR_FIRST[stationId as keyof typeof HEAR_FIRST]
        : peak
          ? peakReason(peak)
          : reason(advice, { name, unit, scale, decimals: unit === "°" ? 0 : decimalsOf(quantity) }),
    arc: advice.kind === "turn" || advice.kind === "trial" ? advice.turns : 0,
    turns,
    slot,
    setTurns,
    channel: adjuster?.channel ?? null,
    peak,
  };
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

/** The number that an adjuster is to bring to nought, as it stands now or was logged last. */
function present(
  view: JobView,
  stationId: StationId,
  adjuster: Adjuster,
  numbers: PlaybackNumbers | null,
  quantity: ReturnType<typeof setBy>,
): { value: number | null; uncertainty: number; settled: boolean } {
  const live = numbers && liveError(stationId, adjuster, numbers);
  if (live) return live;
  const last = inForce(view.readings).findLast((r) => r.quantity === quantity && shows(adjuster)(r));
  return { value: last?.value ?? null, uncertainty: last?.uncertainty ?? 0, settled: true };
}

function liveError(stationId: StationId, { channel }: Adjuster, { now, level, response }: PlaybackNumbers) {
  if (stationId === "azimuth")
    return (
      now.phase && {
        value: now.phase.degrees,
        uncertainty: now.phase.counted ? now.phase.uncertaintyDegrees : 0,
        settled: now.phase.settled,
      }
    );
  if (stationId === "level") {
    if (!level) return null;
    const { channels, balanceDb } = level.numbers;
    const own = channels.find((one) => one.channel === channel) ?? channels[0];
    const value = own.errorDb ?? balanceDb;
    const settled = level.tone.fresh && (now.playing?.index !== level.tone.index || now.playing.settled);
    return value === null ? null : { value, uncertainty: own.uncertaintyDb, settled };
  }
  const own = response.channels.find((one) => one.channel === channel) ?? response.channels.at(0);
  const treble = own?.judged.treble;
  if (!treble) return null;
  const tone = now.tones.find(({ band }) => Math.abs(band.frequencyHz / treble.frequencyHz - 1) < 0.02);
  return { value: treble.levelDb, uncertainty: treble.uncertaintyDb, settled: tone?.fresh ?? false };
}

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
    return `${turnInWords(turns)} ${directionInWords(turns)}, the way that became louder; three levels tell the top.`;
  return `${Math.round(360 * Math.abs(turns))}°. The screw is ${side === "past" ? "past" : "short of"} the loudest point; ${fixed(gainDb, 1)} dB to gain.`;
}
