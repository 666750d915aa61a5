import type { Unit } from "@/core/text/units";

/** One thing that is measured, logged, judged and printed. */
export interface Quantity {
  name: string;
  unit: Unit;
  /** Decimals that its readings and its limit are worth. */
  decimals: number;
  /** It can be too high and too low: shown with its sign, with a window either way of nought. */
  signed: boolean;
  /** What passes is the limit or more. */
  atLeast?: true;
  /** Ends of its ruler, where it lies nowhere near nought. */
  scale?: readonly [number, number];
  /** No adjuster puts it in doubt. */
  unmoved?: true;
  /** What only a turn card or a curve needs means nothing to an owner. */
  unprinted?: true;
}

/** What stands before a limit: it is a floor, or lies either way of nought. */
export const limitSign = ({ atLeast, signed }: Quantity): string => (atLeast ? "≥ " : signed ? "±" : "");
