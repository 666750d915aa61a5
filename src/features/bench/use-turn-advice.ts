import { useMemo, useState } from "react";
import {
  adviseCoupled,
  triedAdjuster,
  type CoupledAdvice,
  type Place,
} from "@/core/alignment/coupled-adjusters";
import { actsAt, atSpeed, speedAdjusterIndex, speedAdjusters, speedsOf } from "@/core/alignment/job-speeds";
import { limitFor } from "@/core/alignment/limits";
import type { Adjuster } from "@/core/alignment/records";
import { sideSpeeds, targetFor } from "@/core/alignment/sides";
import { readingsOf } from "@/core/alignment/station-state";
import { adviseTurn, learnedTurns, type TurnAdvice } from "@/core/alignment/turn-guidance";
import type { JobView } from "../job/use-job-records";
import { notLogged } from "./practice-drawer";
import type { ListenerState } from "./use-listener";
import { usePriorTurns } from "./use-prior-turns";

/** Within this share of the limit there is nothing more to gain by turning. */
export const GOOD_ENOUGH_SHARE = 0.2;
const SMALLEST_GOOD_ENOUGH_PERCENT = 0.04;

export interface ToTurn {
  /** Every adjuster that acts at the present speed. */
  adjusters: Adjuster[];
  adjuster: Adjuster | undefined;
  choose(adjusterId: string): void;
  advice: TurnAdvice;
  /** What other speeds have to do with it; null when there are none. */
  coupled: CoupledAdvice | null;
  /** Speed error to aim at, percent. */
  targetPercent: number;
  /** What "I turned it" will log, clockwise positive. */
  turns: number;
  /** Its slot on a practice machine; −1 when there is nothing to turn. */
  slot: number;
  setTurns(turns: number): void;
}

/**
 * Which adjuster to turn and how far, from the turns of this job and of earlier ones and the number that stands now.
 * @param sideTargetPercent what the side that plays aims at
 */
export function useTurnAdvice(view: JobView, listener: ListenerState, sideTargetPercent: number): ToTurn {
  const { job, machine } = view;
  const [chosenId, choose] = useState<string | null>(null);
  const prior = usePriorTurns(view);
  const limit = limitFor(machine, "speedError") ?? 0.5;
  const goodEnough = Math.max(SMALLEST_GOOD_ENOUGH_PERCENT, Math.min(0.1, GOOD_ENOUGH_SHARE * limit));

  const atSpeeds = useMemo(
    () => speedsOf(view.job).map(({ speedCmPerS }) => ({ speedCmPerS, records: atSpeed(view, speedCmPerS) })),
    [view],
  );
  const here = atSpeeds.find(({ speedCmPerS }) => speedCmPerS === job.speedCmPerS)!.records;
  const readings = readingsOf(here, "speed");
  const speed = listener.measured?.speed ?? null;
  const value = (speed?.errorPercent ?? readings.at(-1)?.value ?? NaN) - sideTargetPercent;
  const acting = speedAdjusters(machine).filter((one) => actsAt(one, job.speedCmPerS));
  const tried = useMemo(
    () =>
      speedAdjusters(view.machine).map((one) =>
        triedAdjuster(
          one,
          atSpeeds,
          new Map(atSpeeds.map(({ speedCmPerS }) => [speedCmPerS, prior(one.id, speedCmPerS)])),
        ),
      ),
    [view.machine, atSpeeds, prior],
  );
  const coupled =
    atSpeeds.length > 1 ? coupledAdvice(tried, atSpeeds, job.speedCmPerS, goodEnough, speed && value) : null;

  const chosen = acting.find(({ id }) => id === chosenId);
  const adjuster = chosen ?? coupled?.adjuster ?? acting.at(0);
  // an adjuster chosen by hand is turned for the present speed alone
  const aimPercent = chosen && chosen !== coupled?.adjuster ? 0 : (coupled?.aimPercent ?? 0);
  const advice = adviseTurn(
    adjuster ? learnedTurns(readings, here.adjustments, adjuster.id) : [],
    value - aimPercent,
    goodEnough,
    speed ? speed.settled : !Number.isNaN(value),
    adjuster ? prior(adjuster.id, job.speedCmPerS) : [],
  );
  const slot = speedAdjusterIndex(machine, adjuster?.id);
  const [turns, setTurns] = useProposedTurns(advice, listener, slot);
  const targetPercent = sideTargetPercent + aimPercent;
  return { adjusters: acting, adjuster, choose, advice, coupled, targetPercent, turns, slot, setTurns };
}

function coupledAdvice(
  tried: ReturnType<typeof triedAdjuster>[],
  atSpeeds: Array<{ speedCmPerS: number; records: JobView }>,
  presentCmPerS: number,
  goodEnough: number,
  liveError: number | null,
): CoupledAdvice {
  const places = atSpeeds.map(({ speedCmPerS, records }): Place => {
    const { readings, adjustments, job } = records;
    const last = readingsOf(records, "speed").at(-1);
    const { differencePercent } = sideSpeeds(readings, adjustments);
    const target = targetFor(last?.context.side, differencePercent, !job.oneSideOnly);
    const live = speedCmPerS === presentCmPerS ? liveError : null;
    return { speedCmPerS, error: live ?? (last ? last.value - target : null), goodEnough };
  });
  // the live number already shows what was turned since the last reading
  const seen = liveError === null ? tried : tried.map((one) => seenAt(one, presentCmPerS));
  return adviseCoupled(seen, places, presentCmPerS);
}

const seenAt = (one: ReturnType<typeof triedAdjuster>, speedCmPerS: number) => ({
  ...one,
  sinceAt: new Map([...one.sinceAt, [speedCmPerS, 0]]),
});

/** What "I turned it" will log: what the practice slot did, else what was chosen, else what was advised. */
function useProposedTurns(
  advice: TurnAdvice,
  { practice, marks }: ListenerState,
  slot: number,
): [number, (turns: number) => void] {
  const [choice, setChoice] = useState<{ turns: number; afterMarks: number } | null>(null);
  const chosen = choice?.afterMarks === marks.length ? choice.turns : null;
  const choose = (turns: number) => setChoice({ turns, afterMarks: marks.length });
  const advised = advice.kind === "turn" || advice.kind === "trial" ? advice.turns : 0.125;
  return [practice && slot >= 0 ? notLogged(practice, slot) : (chosen ?? advised), choose];
}
