import { useState } from "react";
import type { Advised } from "@/core/stations/advised";
import type { OnTheBench } from "@/core/stations/on-the-bench";
import type { Adjuster } from "@/core/records/machine";
import { slotOf } from "@/core/simulator/practice-slots";
import { notLogged } from "../practice/practice-drawer";
import type { ListenerState } from "../listening/use-listener";

const USUAL_TURNS = 0.125;

export interface ProposedTurns {
  /** What "I turned it" is about: what was turned on the practice machine, where that is another than was told. */
  adjuster: Adjuster | undefined;
  /** What "I turned it" will log, clockwise positive. */
  turns: number;
  setTurns(turns: number): void;
  /** Slot of the adjuster on a practice machine; null when there is none. */
  slot: number | null;
  /** How far that slot was turned since the last logged turn; 0 without a practice machine. */
  slotTurns: number;
  atStop: boolean;
}

/** What "I turned it" will log: what the practice slot did, else what was chosen, else what was told. */
export function useProposedTurns(
  advised: Advised | null,
  { told, records, session }: Pick<OnTheBench, "told" | "records" | "session">,
  { practice }: ListenerState,
): ProposedTurns {
  const { adjusters } = records.machine;
  const [choice, setChoice] = useState<{ turns: number; of: string } | null>(null);
  const turnsOf = (slot: number | null) => (practice && slot !== null ? notLogged(practice, slot) : 0);
  const turnedOnes = (advised?.adjusters ?? []).filter((one) => turnsOf(slotOf(one, adjusters)) !== 0);
  const adjuster = turnedOnes.length === 1 ? turnedOnes[0] : advised?.adjuster;
  // an amount that was chosen is of this screw, by this number, from this source, and of one turn
  const of = [adjuster?.id, advised?.toSet.quantity, session, records.adjustments.length].join(" ");
  const chosen = choice?.of === of ? choice.turns : null;
  const slot = slotOf(adjuster, adjusters);
  const counted = practice && slot !== null;
  const slotTurns = turnsOf(slot);
  const advice = advised?.advice;
  const proposed =
    advised?.turnedSoFar ??
    (told?.adjusterId === advised?.adjuster?.id ? told?.turns : undefined) ??
    (advice?.kind === "turn" || advice?.kind === "trial" ? advice.turns : USUAL_TURNS);
  return {
    adjuster,
    turns: counted ? slotTurns : (chosen ?? proposed),
    setTurns: (turns) => setChoice({ turns, of }),
    slot,
    slotTurns,
    atStop: counted ? (practice.trimmers[slot]?.atStop ?? false) : false,
  };
}
