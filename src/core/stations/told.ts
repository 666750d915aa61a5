import { inForce } from "@/core/records/job-records";
import type { Advised } from "./advised";
import type { OnTheBench, Told } from "./on-the-bench";

/** A number that has come this share of the way is no restless one: somebody turns. */
const CLEARLY_MOVED = 0.15;

/**
 * While it is the same, what was told holds. A reading that is logged in the middle of a turn does not end it; the first
 * one after a turn that was said does, and one that is left so.
 */
export function occasionOf(
  stationId: string,
  { here, tape, circumstances }: Pick<OnTheBench, "here" | "tape" | "circumstances">,
): string {
  const last = inForce(here.adjustments).at(-1);
  const readings = inForce(here.readings).filter(({ station }) => station === stationId);
  return JSON.stringify([
    stationId,
    here.job.speedCmPerS,
    tape.id,
    circumstances,
    last?.id,
    readings.some(({ at }) => !last || at > last.at),
    readings.filter(({ phase }) => phase === "as left").length,
  ]);
}

/** What was told holds for its occasion only. */
export const stillTold = (told: Told | null, occasion: string): Told | null =>
  told?.occasion === occasion ? told : null;

/**
 * What stands told after the card has given this advice; the same thing as before while nothing of it has changed.
 * @param told what stood told of this occasion
 */
export function toldNext(told: Told | null, occasion: string, advised: Advised): Told | null {
  const { adjuster, advice, toSet, readElsewhere } = advised;
  // what is not heard any more cannot show that it is being turned, nor can another tone
  const heardFrom = toSet.from;
  if (!adjuster || heardFrom === undefined) return null;
  const standing = told?.adjusterId === adjuster.id && told.from.heardFrom === heardFrom ? told : null;
  if (standing?.moved) return standing;
  if (advice.kind === "wait" || toSet.value === null || !toSet.settled) return standing;
  const { value, uncertainty } = toSet;
  if (standing) {
    const { from } = standing;
    const off = Math.abs(from.value - advised.target);
    const known = Math.max(uncertainty, from.uncertainty);
    const way = Math.abs(value - from.value);
    if (way > Math.max(known, CLEARLY_MOVED * off)) return { ...standing, moved: true };
    // perhaps on its way: what was told first is what is being turned
    if (way > known) return standing;
  }
  if ((advice.kind !== "turn" && advice.kind !== "trial") || readElsewhere) return null;
  if (standing?.turns === advice.turns) return standing;
  const from = standing?.from ?? { value, uncertainty, heardFrom };
  return { occasion, adjusterId: adjuster.id, turns: advice.turns, from, moved: false };
}

/** The advice for a screw that has come to where nothing more is to be turned, before that was said. */
export function asTurned(told: Told | null, advised: Advised): Advised {
  const { adjuster, advice, readElsewhere } = advised;
  if (!told?.moved || adjuster?.id !== told.adjusterId) return advised;
  if (advice.kind !== "leave" && readElsewhere === null) return advised;
  return {
    ...advised,
    readElsewhere: null,
    headline: "say that you turned it",
    reason: "It has come to where it should be. Say how far it went; if it was not turned, log it.",
  };
}
