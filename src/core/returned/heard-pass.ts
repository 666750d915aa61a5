import type { ReturnedPass } from "./returned";

/** One time through a sequence as it was heard live. */
export interface PassNow extends ReturnedPass {
  sequenceId: string;
  /** When its first mark began and its last whole sound ended, on the clock of the source. */
  startSeconds: number;
  endSeconds: number;
  /** Every sound of it was heard to its end. */
  whole: boolean;
  /** Where it was heard: what went in, or what came back. */
  hears: "source" | "tape" | "unclear";
  /** How often a turn had been told when it began; null when one was told while it played. */
  told: number | null;
}

/** What was heard of a sequence so far, oldest first. */
export interface ReturnedNow {
  sequenceId: string;
  passes: PassNow[];
  /** How often a turn has been told so far. */
  told: number;
  /** The clock of the source now. */
  nowSeconds: number;
}
