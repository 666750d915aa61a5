import { explainDistortion, type DistortionCause } from "@/core/advice/explain-distortion";
import { inForce } from "@/core/records/job-records";
import { schoolOf } from "./bias";
import { biasSides, errorOf } from "./bias-sides";
import { distortion, type DistortionOf } from "./distortion";
import type { OnTheBench } from "./on-the-bench";

const USUAL_LIMIT_PERCENT = 3;

/** What the distortion of the worse channel usually means, held against the job's other tapes and how its bias stands. */
export function distortionCauses(bench: OnTheBench, channels: readonly DistortionOf[]): DistortionCause[] {
  const { here, circumstances } = bench;
  const { recordingOn } = circumstances;
  const worst = channels.toSorted((a, b) => (b.zero?.thirdPercent ?? 0) - (a.zero?.thirdPercent ?? 0)).at(0);
  if (!worst?.zero) return [];
  const { zero, sourceZero, steps, channel } = worst;
  const readings = inForce(here.readings).filter(({ context }) => context.channel === channel);
  const last = (quantity: string, tape: string | undefined) =>
    readings.findLast((r) => r.quantity === quantity && r.context.recordingOn === tape);
  const biasError = last("bias.error", recordingOn);
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
        const thirdPercent = last("distortion.third", id)?.value ?? null;
        return thirdPercent === null ? [] : [{ name, thirdPercent }];
      }),
    biasErrorDb: biasError?.value ?? null,
    biasUncertaintyDb: biasError?.uncertainty ?? 0,
    overBiasErrorDb: overBiasErrorDb(bench, channel),
    fallsDbPerDb:
      lower?.measurable && zero.measurable
        ? (20 * Math.log10(zero.thirdPercent / lower.thirdPercent)) / (zero.sentDbfs - lower.sentDbfs)
        : null,
  });
}
const NEXT_STEP_DB = 4.5;

/** How bias stands by over-bias, from what was logged while it was set; null where that is the chosen school, and where it is not known well. */
function overBiasErrorDb(bench: OnTheBench, channel: string): number | null {
  if (schoolOf(bench.here.job) === "over-bias") return null;
  // what is heard now is distortion's
  const side = biasSides({ ...bench, heard: null }).find((one) => one.channel === channel);
  const error = side ? errorOf("over-bias", side) : null;
  return error && error.uncertaintyDb < KNOWN_DB ? error.errorDb : null;
}
const KNOWN_DB = 1.2;
