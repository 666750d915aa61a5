import { inForce } from "@/core/records/job-records";
import type { BiasFigure } from "@/core/records/machine";
import type { Reading } from "@/core/records/reading";
import { fixed } from "@/core/text/number-text";
import type { OnTheBench } from "./on-the-bench";

/** Of a meter that is good for the bias frequency, share of what it shows. */
const METER_SHARE = 0.03;

/** What the maker wants for the type of tape that is recorded on; null where it is not written down. */
export function biasFigureHere({
  here,
  circumstances,
}: Pick<OnTheBench, "here" | "circumstances">): BiasFigure | null {
  const { machine, blanks = [] } = here;
  const type = blanks.find(({ id }) => id === circumstances.recordingOn)?.type ?? null;
  const all = machine.biasFigures ?? [];
  return (
    all.find(({ tapeType }) => tapeType !== undefined && tapeType === type) ??
    all.find(({ tapeType }) => tapeType === undefined) ??
    null
  );
}

/** What the meter is to show: a current shows as the voltage across its resistor, U = I · R. */
export function toShow({ amount, unit, acrossOhm }: BiasFigure): { value: number; unit: "V" | "mV" } {
  switch (unit) {
    case "V":
    case "mV":
      return { value: amount, unit };
    case "mA":
      return { value: amount * acrossOhm!, unit: "mV" };
  }
}

/**
 * Bias re the maker's figure, dB: 20 lg of what the meter shows over what it is to show.
 * @param shown in the unit of `toShow`
 */
export function byMeter(
  figure: BiasFigure,
  shown: number,
): { errorDb: number; uncertaintyDb: number; method: string } {
  const { value, unit } = toShow(figure);
  const current = figure.unit === "mA" ? `, ${fixed(shown / figure.acrossOhm!, 3)} mA` : "";
  return {
    errorDb: decibels(shown / value),
    uncertaintyDb: decibels(1 + METER_SHARE),
    method: `${METER} (${figure.amount} ${figure.unit}): the meter shows ${shown} ${unit}${current}`,
  };
}
const decibels = (ratio: number): number => 20 * Math.log10(ratio);
const METER = "bias re the maker's figure";

/** What was typed of a channel last on the blank tape that is recorded on; null for nothing. */
export function typedLast(
  { here, circumstances }: OnTheBench,
  channel: string | undefined,
): { reading: Reading; fresh: boolean } | null {
  const reading = inForce(here.readings).findLast(
    ({ quantity, method, context }) =>
      quantity === "bias.error" &&
      method.startsWith(METER) &&
      (channel === undefined || context.channel === channel || context.channel === "both") &&
      context.recordingOn === circumstances.recordingOn,
  );
  if (!reading) return null;
  const lastTurn = inForce(here.adjustments).findLast(
    ({ adjusterId, turns }) =>
      turns !== 0 && here.machine.adjusters.some(({ id, sets }) => id === adjusterId && sets === "bias"),
  );
  return { reading, fresh: reading.at > (lastTurn?.at ?? "") };
}
