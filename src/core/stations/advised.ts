import type { Adjuster } from "@/core/records/machine";
import type { CoupledAdvice } from "@/core/guidance/coupled-adjusters";
import type { PeakAdvice } from "@/core/guidance/loudest-point";
import type { TurnAdvice } from "@/core/guidance/turn-guidance";

/** A number that something is turned by, as it stands. */
export interface ToSet {
  quantity: string;
  /** Null before it was heard. */
  value: number | null;
  uncertainty: number;
  settled: boolean;
  /** What it is heard from, while that goes on and the number follows a turn; left out for one that stands still. */
  from?: string;
  /** Why it has no number that is heard, and what stands in its place; left out for one that is heard. */
  unheard?: "as logged" | "turned since" | "never logged";
}

/** What to turn at a station and how far, in numbers and in words. */
export interface Advised {
  /** Every adjuster that acts here. */
  adjusters: readonly Adjuster[];
  adjuster: Adjuster | undefined;
  /** The number that the adjuster is to bring to its target; the guide tone follows it. */
  toSet: ToSet;
  /** What it aims at, in the unit of that number. */
  target: number;
  advice: TurnAdvice;
  headline: string;
  reason: string;
  /** A reading to take at another speed before anything is turned here. */
  readElsewhere: CoupledAdvice["read"];
  /** The search for the loudest point, where it is set by that. */
  peak: PeakAdvice | null;
  /** How far the screw went since the last turn that was told, where what is heard tells it. */
  turnedSoFar?: number;
}

/** Which way and how far, clockwise positive; 0 when nothing is to be turned now. */
export const arcOf = ({ advice, readElsewhere }: Advised): number =>
  readElsewhere === null && (advice.kind === "turn" || advice.kind === "trial") ? advice.turns : 0;

/** Where nothing is turned: the number alone. */
export const nothingAdvised = (toSet: ToSet): Advised => ({
  adjusters: [],
  adjuster: undefined,
  toSet,
  target: 0,
  advice: { kind: "wait" },
  headline: "",
  reason: "",
  readElsewhere: null,
  peak: null,
});
