import { inForce } from "@/core/records/job-records";
import type { Reading } from "@/core/records/reading";
import { fixed, THIN_SPACE } from "@/core/text/number-text";

/** A line of a tape's passport: what it is, the figures of its channels (left / right), and what they mean to its owner. */
export interface PassportRow {
  says: string;
  figures: string;
  means: string;
}

interface Line {
  quantity: string;
  says: string;
  signed: boolean;
  unit: string;
  means(values: readonly number[]): string;
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

/** What a mean is called below, within and above a narrow band around nought. */
const sided =
  (within: number, [below, even, above]: readonly [string, string, string]) =>
  (values: readonly number[]): string =>
    Math.max(...values) - Math.min(...values) > APART_DB
      ? "left and right apart: that is the machine"
      : Math.abs(mean(values)) < within
        ? even
        : mean(values) > 0
          ? above
          : below;

const APART_DB = 1.5;
const FEW_A_MINUTE = 1;
const MANY_A_MINUTE = 5;

const LINES: readonly Line[] = [
  {
    quantity: "passport.sensitivity",
    says: "Sensitivity",
    signed: true,
    unit: "dB",
    means: sided(0.5, [
      "comes back quieter than it went in",
      "comes back as loud as it went in",
      "comes back louder than it went in",
    ]),
  },
  {
    quantity: "passport.treble",
    says: "Treble, 10 kHz",
    signed: true,
    unit: "dB",
    means: sided(1, ["dull", "even", "bright"]),
  },
  {
    quantity: "passport.biasWanted",
    says: "Bias wanted",
    signed: true,
    unit: "dB",
    means: sided(0.4, ["less than it gets", "as it is set", "more than it gets"]),
  },
  {
    quantity: "passport.mol",
    says: "3 % third harmonic",
    signed: true,
    unit: "dB re 0",
    means: (values) => `record peaks up to ${fixed(Math.min(...values), 0, true)}${THIN_SPACE}dB`,
  },
  { quantity: "passport.noise", says: "Noise, A-weighted", signed: true, unit: "dB re 0", means: () => "" },
  {
    quantity: "passport.dropOuts",
    says: "Drop-outs",
    signed: false,
    unit: "a minute",
    means: (values) => {
      const most = Math.max(...values);
      return most < FEW_A_MINUTE ? "few" : most < MANY_A_MINUTE ? "some" : "many: worn or dirty";
    },
  },
];

/**
 * The passport of a tape from what was logged on it last; empty where nothing was.
 * @param readings of that tape
 */
export function passportRows(readings: readonly Reading[]): PassportRow[] {
  const known = inForce([...readings]);
  return LINES.flatMap(({ quantity, says, signed, unit, means }) => {
    const own = known.filter((reading) => reading.quantity === quantity);
    const channels = [...new Set(own.map(({ context }) => context.channel))];
    const values = channels.map(
      (channel) => own.findLast(({ context }) => context.channel === channel)!.value,
    );
    if (values.length === 0) return [];
    const figures = `${values.map((value) => fixed(value, 1, signed)).join(" / ")}${THIN_SPACE}${unit}`;
    return [{ says, figures, means: means(values) }];
  });
}
