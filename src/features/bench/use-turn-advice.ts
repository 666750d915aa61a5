import { useMemo, useState } from "react";
import {
  adviseCoupled,
  triedAdjuster,
  type CoupledAdvice,
  type Place,
} from "@/core/alignment/coupled-adjusters";
import { actsAt, atSpeed, speedAdjusters, speedsOf } from "@/core/alignment/job-speeds";
import { limitFor } from "@/core/alignment/limits";
import { sideSpeeds, targetFor } from "@/core/alignment/sides";
import { readingsOf } from "@/core/alignment/station-state";
import { adviseTurn, learnedTurns, type TurnAdvice } from "@/core/alignment/turn-guidance";
import { slotOf } from "@/core/machine/practice-slots";
import { fixed } from "@/core/formats/number-text";
import type { JobView } from "../job/use-job-records";
import { notLogged } from "./practice-drawer";
import type { ListenerState } from "./use-listener";
import type { ToTurn } from "./turn-card";
import { headline, reason, SPEED } from "./turn-words";
import { usePriorTurns } from "./use-prior-turns";

/** Within this share of the limit there is nothing more to gain by turning. */
export const GOOD_ENOUGH_SHARE = 0.2;
const SMALLEST_GOOD_ENOUGH_PERCENT = 0.04;

export interface SpeedToTurn extends ToTurn {
  /** What other speeds have to do with it; null when there are none. */
  coupled: CoupledAdvice | null;
  /** A reading to take at another speed before anything is turned here. */
  readElsewhere: CoupledAdvice["read"];
  /** Speed error to aim at, percent. */
  targetPercent: number;
}

/**
 * Which adjuster to turn and how far, from the turns of this job and of earlier ones and the number that stands now.
 * @param sideTargetPercent what the side that plays aims at
 */
export function useTurnAdvice(
  view: JobView,
  listener: ListenerState,
  sideTargetPercent: number,
): SpeedToTurn {
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
  const slot = slotOf(adjuster, machine.adjusters);
  const [turns, setTurns] = useProposedTurns(advisedTurns(advice), listener, slot);
  const targetPercent = sideTargetPercent + aimPercent;
  // what an adjuster chosen by hand does elsewhere is not what was worked out for the advised one
  const asAdvised = coupled !== null && adjuster === coupled.adjuster ? coupled : null;
  const readElsewhere = advice.kind === "wait" ? null : (coupled?.read ?? null);
  return {
    adjusters: acting,
    adjuster,
    choose,
    headline: readElsewhere ? `read ${readElsewhere.speedCmPerS} cm/s` : headline(advice),
    reason: [reason(advice, SPEED), asAdvised && advice.kind !== "wait" && beyond(asAdvised)]
      .filter(Boolean)
      .join(" "),
    arc: !readElsewhere && (advice.kind === "turn" || advice.kind === "trial") ? advice.turns : 0,
    coupled,
    readElsewhere,
    targetPercent,
    turns,
    slot,
    setTurns,
  };
}

/** What a turn means for the other speeds. */
function beyond({ aimPercent, elsewhere, compromise }: CoupledAdvice): string {
  const moved = elsewhere.filter(({ from, to }) => Math.abs(to - from) >= 0.03);
  return [
    Math.abs(aimPercent) >= 0.03 && `Aim at ${fixed(aimPercent, 2, true)} % here.`,
    ...moved.map(
      ({ speedCmPerS, from, to }) =>
        `${speedCmPerS} cm/s goes from ${fixed(from, 2, true)} to ${fixed(to, 2, true)} %.`,
    ),
    compromise && "Not every speed can be right with what there is to turn; this is the best of it.",
  ]
    .filter(Boolean)
    .join(" ");
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
export function useProposedTurns(
  advised: number,
  { practice, marks }: ListenerState,
  slot: number | null,
): [number, (turns: number) => void] {
  const [choice, setChoice] = useState<{ turns: number; afterMarks: number } | null>(null);
  const chosen = choice?.afterMarks === marks.length ? choice.turns : null;
  const choose = (turns: number) => setChoice({ turns, afterMarks: marks.length });
  return [practice && slot !== null ? notLogged(practice, slot) : (chosen ?? advised), choose];
}

const USUAL_TURNS = 0.125;
export const advisedTurns = (advice: TurnAdvice): number =>
  advice.kind === "turn" || advice.kind === "trial" ? advice.turns : USUAL_TURNS;
