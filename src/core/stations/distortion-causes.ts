import { explainDistortion, type DistortionCause } from "@/core/advice/explain-distortion";
import { placesHeard } from "@/core/guidance/bias-law";
import { turnsTo } from "@/core/guidance/bias-screw";
import { directionInWords, turnInWords } from "@/core/guidance/turn-guidance";
import { inForce } from "@/core/records/job-records";
import { biasLimitOf, schoolOf } from "./bias-school";
import { biasSides, errorOf, type BiasSide } from "./bias-sides";
import { distortion, secondPercentOf, type DistortionOf } from "./distortion";
import type { OnTheBench } from "./on-the-bench";

const USUAL_LIMIT_PERCENT = 3;

/** A cause with the turn that is to be tried against it. */
export interface CauseAndTurn extends DistortionCause {
  turn: { adjusterId: string; turns: number } | null;
}

/** What the distortion of the worse channel usually means, held against the job's other tapes and how its bias stands. */
export function distortionCauses(bench: OnTheBench, channels: readonly DistortionOf[]): CauseAndTurn[] {
  const { here, circumstances } = bench;
  const { recordingOn } = circumstances;
  const worst = channels.toSorted((a, b) => (b.zero?.thirdPercent ?? 0) - (a.zero?.thirdPercent ?? 0)).at(0);
  if (!worst?.zero) return [];
  const { zero, sourceZero, steps, channel } = worst;
  const readings = inForce(here.readings).filter(({ context }) => context.channel === channel);
  const last = (quantity: string, tape: string | undefined) =>
    readings.findLast((r) => r.quantity === quantity && r.context.recordingOn === tape);
  const biasError = last("bias.error", recordingOn);
  const level = last("recordLevel.error", recordingOn);
  const lower = steps.find(
    ({ sentDbfs }) => sentDbfs < zero.sentDbfs && sentDbfs > zero.sentDbfs - NEXT_STEP_DB,
  );
  // what is heard now is distortion's
  const side = biasSides({ ...bench, heard: null }).find((one) => one.channel === channel);
  const causes = explainDistortion({
    thirdPercent: zero.measurable ? zero.thirdPercent : null,
    secondPercent: secondPercentOf(zero),
    sourceThirdPercent: sourceZero?.measurable ? sourceZero.thirdPercent : null,
    limitPercent: distortion.limitOf(here.machine, "distortion.third") ?? USUAL_LIMIT_PERCENT,
    others: (here.job.blankTapes ?? [])
      .filter(({ id }) => id !== recordingOn)
      .flatMap(({ id, name }) => {
        const thirdPercent = last("distortion.third", id)?.value ?? null;
        return thirdPercent === null ? [] : [{ name, thirdPercent }];
      }),
    biasErrorDb: biasError?.value ?? null,
    biasUncertaintyDb: biasError?.uncertainty ?? 0,
    biasLimitDb: biasLimitOf(here.machine),
    recordLevel: level ? { errorDb: level.value, uncertaintyDb: level.uncertainty } : null,
    overBias: schoolOf(here.job) === "flatness" ? overBiasOf(side) : "not asked",
    fallsDbPerDb:
      lower?.measurable && zero.measurable
        ? (20 * Math.log10(zero.thirdPercent / lower.thirdPercent)) / (zero.sentDbfs - lower.sentDbfs)
        : null,
  });
  return causes.map((cause) => withTurn(cause, side));
}

/** How far its screw is to be turned where bias is to be raised; as it is where the screw was not learned yet. */
function withTurn(cause: DistortionCause, side: BiasSide | undefined): CauseAndTurn {
  const { known, adjuster } = side ?? {};
  if (cause.raisesBiasDb === undefined || !adjuster || !known || placesHeard(known.points) < 2)
    return { ...cause, turn: null };
  const turns = turnsTo(known.nowTurns + cause.raisesBiasDb / known.law.dbPerTurn, known);
  const how = `${adjuster.name}: ${directionInWords(turns)}, ${turnInWords(turns)} (${Math.round(360 * Math.abs(turns))}°).`;
  return { ...cause, tryFirst: `${cause.tryFirst} ${how}`, turn: { adjusterId: adjuster.id, turns } };
}

const NEXT_STEP_DB = 4.5;

/** How bias stands by over-bias, from what was logged while it was set. */
function overBiasOf(side: BiasSide | undefined): Parameters<typeof explainDistortion>[0]["overBias"] {
  if (!side || side.overBiasDb === null) return "not asked";
  const error = errorOf("over-bias", side);
  return error ? { errorDb: error.errorDb, uncertaintyDb: error.uncertaintyDb } : "not known";
}
