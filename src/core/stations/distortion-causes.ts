import { explainDistortion, type DistortionCause } from "@/core/advice/explain-distortion";
import { inForce } from "@/core/records/job-records";
import { distortion, type DistortionOf } from "./distortion";
import type { OnTheBench } from "./on-the-bench";

const USUAL_LIMIT_PERCENT = 3;

/** What the distortion of the worse channel usually means, held against the job's other tapes and how its bias stands. */
export function distortionCauses(
  { here, circumstances: { recordingOn } }: OnTheBench,
  channels: readonly DistortionOf[],
): DistortionCause[] {
  const worst = channels.toSorted((a, b) => (b.zero?.thirdPercent ?? 0) - (a.zero?.thirdPercent ?? 0)).at(0);
  if (!worst?.zero) return [];
  const { zero, sourceZero, steps, channel } = worst;
  const readings = inForce(here.readings).filter(({ context }) => context.channel === channel);
  const lastOf = (quantity: string, tape: string | undefined) =>
    readings.findLast((r) => r.quantity === quantity && r.context.recordingOn === tape)?.value ?? null;
  const lower = steps.find(
    ({ sentDbfs }) => sentDbfs < zero.sentDbfs && sentDbfs > zero.sentDbfs - NEXT_STEP_DB,
  );
  return explainDistortion({
    thirdPercent: zero.measurable ? zero.thirdPercent : null,
    secondPercent: zero.harmonics.find(({ order, measurable }) => order === 2 && measurable)?.percent ?? null,
    sourceThirdPercent: sourceZero?.measurable ? sourceZero.thirdPercent : null,
    limitPercent: distortion.limitOf(here.machine, "distortion.third") ?? USUAL_LIMIT_PERCENT,
    others: (here.job.blankTapes ?? [])
      .filter(({ id }) => id !== recordingOn)
      .flatMap(({ id, name }) => {
        const thirdPercent = lastOf("distortion.third", id);
        return thirdPercent === null ? [] : [{ name, thirdPercent }];
      }),
    biasErrorDb: lastOf("bias.error", recordingOn),
    fallsDbPerDb:
      lower?.measurable && zero.measurable
        ? (20 * Math.log10(zero.thirdPercent / lower.thirdPercent)) / (zero.sentDbfs - lower.sentDbfs)
        : null,
  });
}
const NEXT_STEP_DB = 4.5;
