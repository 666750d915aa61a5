import {
  biasKnown,
  hasMoved,
  type BiasKnown,
  type BiasReading,
  type BiasScrew,
} from "@/core/guidance/bias-screw";

/** What is known of bias screws. To find it takes a while, so that it may be thought out aside. */
export interface BiasScrews {
  /** To be shown: null while it is thought out, of screws that something was heard of. */
  shown(screw: BiasScrew): BiasKnown | null;
  /** To be kept: of just what was heard, worked out in one go where it was not yet. */
  kept(screw: BiasScrew): BiasKnown;
}

const keyOf = (screw: BiasScrew) => JSON.stringify(screw);

/** Everything worked out when it is asked for. */
export const AT_ONCE: BiasScrews = { shown: biasKnown, kept: biasKnown };

/** The same screw after the same turns, and nothing heard of it that was not heard before: a place that is heard again trembles. */
function isAsBefore(now: BiasScrew, before: BiasScrew): boolean {
  const apart = (screw: BiasScrew) => keyOf({ ...screw, heard: [], standing: null });
  return (
    apart(now) === apart(before) &&
    allHeard(now).every((one) => isAmong(one, allHeard(before))) &&
    before.heard.every((one) => isAmong(one, allHeard(now)))
  );
}

const allHeard = ({ heard, standing }: BiasScrew) => (standing ? [...heard, standing] : heard);
const isAmong = (one: BiasReading, others: readonly BiasReading[]): boolean =>
  others.some((other) => other.afterTurns === one.afterTurns && !hasMoved(one, other));

/**
 * What was thought out aside. What was known of a screw a moment ago is shown while what is heard now is thought about,
 * as long as it was not turned, and nothing else was heard of it, since.
 * @param screws what was thought about, and what is known of each
 */
export function thoughtOut(screws: readonly BiasScrew[], known: readonly BiasKnown[]): BiasScrews {
  const thoughts = screws.map((screw, i) => ({ screw, known: known[i] }));
  const find = (isIt: (screw: BiasScrew) => boolean) =>
    thoughts.find(({ screw }) => isIt(screw))?.known ?? null;
  return {
    shown: (screw) => find((before) => isAsBefore(screw, before)),
    kept: (screw) => find((before) => keyOf(before) === keyOf(screw)) ?? biasKnown(screw),
  };
}
