import type { TurnAdvice } from "@/core/guidance/turn-guidance";
import { inForce } from "@/core/records/job-records";
import type { Reading } from "@/core/records/reading";
import type { Advised, ToSet } from "./advised";
import type { OnTheBench } from "./on-the-bench";

/**
 * A number that nothing heard tells now, as it was logged last. Once something that moves it was turned or worked on
 * since, it may stand anywhere: then it has no value.
 * @param station that reads it
 * @param readings those that it may be taken from
 * @param is whether a reading is of what is set
 */
export function asLogged(
  { movedAt }: Pick<OnTheBench, "movedAt">,
  station: string,
  quantity: string,
  readings: readonly Reading[],
  is: (reading: Reading) => boolean,
): ToSet {
  const last = inForce(readings).findLast((reading) => reading.quantity === quantity && is(reading));
  if (!last) return { quantity, value: null, uncertainty: 0, settled: true, unheard: "never logged" };
  return movedAt(station) > last.at
    ? { quantity, value: null, uncertainty: 0, settled: true, unheard: "turned since" }
    : { quantity, value: last.value, uncertainty: last.uncertainty, settled: true, unheard: "as logged" };
}

type Words = Pick<Advised, "headline" | "reason">;

/**
 * What a card says by a number that is not heard now, so that nobody takes what was for what is.
 * @param unheard why it is not heard; undefined for one that is
 * @param said of the advice, as if it were heard
 * @param hearFirst what to play before there is a number
 */
export function saidUnheard(
  unheard: ToSet["unheard"],
  { kind }: TurnAdvice,
  said: Words,
  hearFirst: string,
): Words {
  switch (unheard) {
    case undefined:
      return said;
    case "never logged":
      return { headline: "play the tape", reason: hearFirst };
    case "turned since":
      return {
        headline: "play the tape",
        reason:
          `Something that moves it was turned since it was logged: where it stands now has to be heard. ${hearFirst}`.trim(),
      };
    case "as logged":
      return kind === "leave"
        ? {
            headline: "play the tape",
            reason:
              "As it was logged last there is nothing to turn; whether it still stands so has to be heard.",
          }
        : { ...said, reason: `${said.reason} By what was logged last; it is not heard now.` };
  }
}
