import {
  adviseCoupled,
  triedAdjuster,
  type CoupledAdvice,
  type Place,
} from "@/core/guidance/coupled-adjusters";
import { sideSpeeds, targetFor } from "@/core/guidance/speed-sides";
import { adviseTurn, learnedTurns, type LearnedTurn, type TurnAdvice } from "@/core/guidance/turn-guidance";
import { headline, reason, type TurnedQuantity } from "@/core/guidance/turn-words";
import { inForce, type JobRecords } from "@/core/records/job-records";
import { atSpeed, speedAdjusters, speedsOf } from "@/core/records/job-speeds";
import type { Reading } from "@/core/records/reading";
import { fixed } from "@/core/text/number-text";
import { actingAdjusters } from "./acting-adjusters";
import type { Advised, ToSet } from "./advised";
import { saidUnheard } from "./as-logged";
import type { OnTheBench, PriorJob } from "./on-the-bench";
import { rememberLast } from "./remember-last";

const SPEED_ERROR = "speedError";
/** Within this share of the limit there is nothing more to gain by turning. */
const GOOD_ENOUGH_SHARE = 0.2;
const SMALLEST_GOOD_ENOUGH_PERCENT = 0.04;
const LARGEST_GOOD_ENOUGH_PERCENT = 0.1;
const HEAR_FIRST = "The steady tone of a speed tape comes first.";
const SPEED: TurnedQuantity = {
  name: "the speed",
  unit: "%",
  scale: 1,
  decimals: 2,
  atStop: "belt, drag, pulley, supply voltage",
};

const speedsRead = ({ readings }: Pick<JobRecords, "readings">): Reading[] =>
  inForce(readings).filter(({ quantity }) => quantity === SPEED_ERROR);

/**
 * Which speed adjuster to turn and how far, from the turns of this job and of earlier ones and the number that stands
 * now; at several tape speeds, from what the adjusters do to all of them.
 * @param now the number as it stands, or as it was logged last
 */
export function adviseSpeed(bench: OnTheBench, now: ToSet, limit: number, chosenId: string | null): Advised {
  const { records, here, circumstances, prior } = bench;
  const { job } = here;
  const goodEnough = Math.max(
    SMALLEST_GOOD_ENOUGH_PERCENT,
    Math.min(LARGEST_GOOD_ENOUGH_PERCENT, GOOD_ENOUGH_SHARE * limit),
  );
  const { differencePercent } = sideSpeeds(here.readings, here.adjustments);
  const sideTarget = targetFor(circumstances.side, differencePercent, !job.oneSideOnly);
  const acting = actingAdjusters({ id: "speed", apartBy: ["speed"] }, bench);
  const live = bench.heard?.speed ? now.value : null;
  const tried = triedAtSpeeds(records, prior);
  const coupled =
    speedsOf(job).length > 1
      ? coupledAdvice(
          records,
          tried,
          goodEnough,
          live === null ? null : live - sideTarget,
          bench.told?.adjusterId ?? null,
        )
      : null;
  const chosen = acting.find(({ id }) => id === chosenId);
  const told = bench.told?.moved ? bench.told : null;
  const beingTurned = acting.find(({ id }) => id === told?.adjusterId);
  const adjuster = chosen ?? beingTurned ?? coupled?.adjuster ?? acting.at(0);
  const asPlanned = coupled !== null && adjuster === coupled.adjuster;
  // an adjuster chosen by hand is turned for the present speed alone; one that has done its part stays where it is
  const aside = chosen ? 0 : (now.value ?? sideTarget) - sideTarget;
  const target = sideTarget + (coupled === null ? 0 : asPlanned ? coupled.aimPercent : aside);
  const advice: TurnAdvice =
    now.value === null
      ? { kind: "wait" }
      : adviseTurn(
          adjuster ? learnedTurns(speedsRead(here), here.adjustments, adjuster.id) : [],
          { value: now.value - target, uncertainty: now.uncertainty, limit, goodEnough },
          now.settled,
          adjuster ? priorTurns(prior, adjuster.id, job.speedCmPerS) : [],
        );
  const knows = advice.kind !== "wait" && advice.kind !== "unclear";
  const readElsewhere = knows ? (coupled?.read ?? null) : null;
  // what an adjuster chosen by hand does elsewhere is not what was worked out for the advised one
  const asAdvised = asPlanned && knows ? coupled : null;
  const words = {
    headline: headline(advice),
    reason: [reason(advice, SPEED), asAdvised && beyond(asAdvised)].filter(Boolean).join(" "),
  };
  const said = saidUnheard(now.unheard, advice, words, HEAR_FIRST);
  return {
    adjusters: acting,
    adjuster,
    toSet: now,
    target,
    advice,
    headline: readElsewhere ? `read ${readElsewhere.speedCmPerS} cm/s` : said.headline,
    reason: said.reason,
    readElsewhere,
    peak: null,
  };
}

/** What is known of every adjuster at every speed of the job. */
const triedAtSpeeds = rememberLast((records: JobRecords, prior: readonly PriorJob[]) => {
  const atSpeeds = speedsOf(records.job).map(({ speedCmPerS }) => {
    const there = atSpeed(records, speedCmPerS);
    return { speedCmPerS, readings: speedsRead(there), adjustments: there.adjustments };
  });
  return speedAdjusters(records.machine).map((one) =>
    triedAdjuster(
      one,
      atSpeeds,
      new Map(atSpeeds.map(({ speedCmPerS }) => [speedCmPerS, priorTurns(prior, one.id, speedCmPerS)])),
    ),
  );
});

/** What the latest earlier job that turned an adjuster has taught of it. */
function priorTurns(prior: readonly PriorJob[], adjusterId: string, speedCmPerS: number): LearnedTurn[] {
  for (const { readings, adjustments } of prior) {
    const there = readings.filter(
      ({ quantity, context }) =>
        quantity === SPEED_ERROR && context.speedCmPerS === speedCmPerS && context.pitch === undefined,
    );
    const learned = learnedTurns(there, adjustments, adjusterId);
    if (learned.length > 0) return learned;
  }
  return [];
}

type Tried = ReturnType<typeof triedAdjuster>;

function coupledAdvice(
  records: JobRecords,
  tried: Tried[],
  goodEnough: number,
  liveError: number | null,
  toldId: string | null,
): CoupledAdvice {
  const presentCmPerS = records.job.speedCmPerS;
  const places = speedsOf(records.job).map(({ speedCmPerS }): Place => {
    const there = atSpeed(records, speedCmPerS);
    const last = speedsRead(there).at(-1);
    const { differencePercent } = sideSpeeds(there.readings, there.adjustments);
    const target = targetFor(last?.context.side, differencePercent, !records.job.oneSideOnly);
    const live = speedCmPerS === presentCmPerS ? liveError : null;
    return { speedCmPerS, error: live ?? (last ? last.value - target : null), goodEnough };
  });
  // the live number already shows what was turned since the last reading
  const seen = liveError === null ? tried : tried.map((one) => seenAt(one, presentCmPerS));
  return adviseCoupled(seen, places, presentCmPerS, toldId);
}

const seenAt = (one: Tried, speedCmPerS: number): Tried => ({
  ...one,
  sinceAt: new Map([...one.sinceAt, [speedCmPerS, 0]]),
});

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
