import { inForce, type Adjustment, type Reading } from "./records";

/** A turn and what it did: turns clockwise positive, change of the reading in its unit. */
export interface LearnedTurn {
  turns: number;
  change: number;
  /** It went as far as its stop. */
  atStop?: boolean;
}

export interface AdjusterEffect {
  /** Change of the reading per clockwise turn. */
  perTurn: number;
  /** Turns that move nothing after a change of direction. */
  slackTurns: number;
  /** Whether the slack was told apart from the effect, or may still hide in it. */
  slackKnown: boolean;
  lastTurn: LearnedTurn;
  /** Nothing was turned in this job yet: an earlier job on the machine has taught it. */
  fromBefore?: boolean;
}

export type TurnAdvice =
  | { kind: "trial"; turns: number }
  | { kind: "turn"; turns: number; effect: AdjusterEffect }
  | { kind: "wait" }
  | { kind: "stop"; effect: AdjusterEffect; lastTurn: LearnedTurn }
  | { kind: "no answer"; effect: null; lastTurn: LearnedTurn }
  | { kind: "leave"; effect: AdjusterEffect | null };

const TRIAL_TURNS = 0.125;
/** Before the slack is known the screw is stopped short, so as not to pass the target. */
const SHORT_OF_TARGET = 0.85;
const NO_ANSWER_CHANGE = 0.03;
/** What an earlier job taught holds while the turns of this one do between half and twice of it. */
const STILL_HOLDS = 2;

/**
 * The turns of one adjuster with the readings on either side of each: the last reading before it and the last
 * one before the next turn. Turns nobody counted end the chain, since what they did is in no one's books.
 */
export function learnedTurns(
  readings: Reading[],
  adjustments: Adjustment[],
  adjusterId: string,
): LearnedTurn[] {
  const logged = inForce(readings);
  const all = inForce(adjustments).filter(({ turns }) => turns !== 0);
  const learned: LearnedTurn[] = [];
  all.forEach((adjustment, i) => {
    if (adjustment.adjusterId !== adjusterId) return;
    const from = all[i - 1]?.at ?? "";
    const to = all[i + 1]?.at ?? "\uffff";
    const after = logged.findLast((r) => r.at > adjustment.at && r.at < to);
    // the sides differ by themselves: only readings of one side tell what the turn did
    const before = logged.findLast(
      (r) => r.at > from && r.at <= adjustment.at && r.context.side === after?.context.side,
    );
    if (adjustment.turns === null) learned.length = 0;
    else if (before && after)
      learned.push({
        turns: adjustment.turns,
        change: after.value - before.value,
        ...(adjustment.atStop && { atStop: true }),
      });
  });
  return learned;
}

/**
 * Effect per turn and slack from the turns made so far, newest first in weight.
 *
 * A turn that goes on in the direction of the one before has no slack in it, so it gives the effect alone; one
 * that reverses loses the slack: change = effect · (turns ∓ slack). The first turn of all is taken to have
 * lost it too. Returns null before any turn has moved the reading.
 */
export function effectOf(turns: LearnedTurn[]): AdjusterEffect | null {
  const lastTurn = turns.at(-1);
  if (!lastTurn) return null;
  const reversed = turns.map((t, i) => i === 0 || Math.sign(t.turns) !== Math.sign(turns[i - 1].turns));
  const straight = turns.filter((_, i) => !reversed[i]);
  const slackTurnsList = turns.filter((_, i) => reversed[i]);

  let perTurn: number;
  let slackKnown = true;
  const largest = straight.reduce(
    (a, t) => (Math.abs(t.turns) >= Math.abs(a?.turns ?? 0) ? t : a),
    straight[0],
  );
  if (largest) perTurn = largest.change / largest.turns;
  else if (slackTurnsList.length >= 2) {
    // two reversals of different size: the slack cancels in their difference
    const [a, b] = slackTurnsList.slice(-2);
    const moved = Math.abs(b.turns) - Math.abs(a.turns);
    const along = (t: LearnedTurn) => t.change * Math.sign(t.turns);
    perTurn =
      Math.abs(moved) > 0.02
        ? (along(b) - along(a)) / moved
        : (along(a) + along(b)) / (Math.abs(a.turns) + Math.abs(b.turns));
    const plain = along(b) / Math.abs(b.turns);
    if (Math.sign(perTurn) !== Math.sign(plain) || Math.abs(perTurn) < Math.abs(plain)) perTurn = plain;
  } else {
    perTurn = lastTurn.change / lastTurn.turns;
    slackKnown = false;
  }
  if (perTurn === 0 || !Number.isFinite(perTurn)) return null;
  const slacks = slackTurnsList
    .slice(-2)
    .map((t) => Math.max(0, Math.abs(t.turns) - Math.abs(t.change / perTurn)));
  const slackTurns = slackKnown && slacks.length > 0 ? slacks[slacks.length - 1] : 0;
  return { perTurn, slackTurns, slackKnown, lastTurn };
}

/**
 * What to turn next to bring `value` to zero.
 * @param value the present reading, in the unit of the learned changes
 * @param goodEnough magnitude within which nothing more is to be gained
 * @param settled whether `value` has been steady since the last turn
 * @param before turns of an earlier job on the same machine
 */
export function adviseTurn(
  turns: LearnedTurn[],
  value: number,
  goodEnough: number,
  settled: boolean,
  before: LearnedTurn[] = [],
): TurnAdvice {
  const effect = withBefore(turns, before);
  if (settled && Math.abs(value) <= goodEnough) return { kind: "leave", effect };
  if (turns.length === 0 && effect === null) return { kind: "trial", turns: TRIAL_TURNS };
  if (!settled) return { kind: "wait" };
  if (turns.length === 0 && effect !== null) {
    // where in its slack the screw was left nobody knows
    const amount = -value / effect.perTurn;
    return { kind: "turn", turns: amount, effect: { ...effect, fromBefore: true } };
  }
  const lastTurn = turns[turns.length - 1];
  if (effect === null || turns.every((t) => Math.abs(t.change) < NO_ANSWER_CHANGE))
    return { kind: "no answer", effect: null, lastTurn };
  const wanted = -value / effect.perTurn;
  if (lastTurn.atStop && Math.sign(wanted) === Math.sign(lastTurn.turns))
    return { kind: "stop", effect, lastTurn };
  const reverses = Math.sign(wanted) !== Math.sign(lastTurn.turns);
  const amount = effect.slackKnown
    ? Math.abs(wanted) + (reverses ? effect.slackTurns : 0)
    : SHORT_OF_TARGET * Math.abs(wanted);
  return { kind: "turn", turns: Math.sign(wanted) * amount, effect };
}

/** The effect of an adjuster with what an earlier job knew of it, unless the turns made since say otherwise. */
function withBefore(turns: LearnedTurn[], before: LearnedTurn[]): AdjusterEffect | null {
  const known = effectOf(before);
  if (known === null) return effectOf(turns);
  const plain = turns
    .filter(({ turns: t }) => Math.abs(t) > 2 * known.slackTurns + 0.02)
    .map(({ turns: t, change }) => change / t / known.perTurn);
  const holds = plain.every((ratio) => ratio > 1 / STILL_HOLDS && ratio < STILL_HOLDS);
  return holds ? effectOf([...before, ...turns]) : effectOf(turns);
}

const FRACTIONS: Array<[number, string]> = [
  [1 / 32, "a thirty-second of a turn"],
  [1 / 16, "a sixteenth of a turn"],
  [1 / 12, "a twelfth of a turn"],
  [1 / 8, "an eighth of a turn"],
  [1 / 6, "a sixth of a turn"],
  [1 / 4, "a quarter turn"],
  [1 / 3, "a third of a turn"],
  [1 / 2, "half a turn"],
  [2 / 3, "two thirds of a turn"],
  [3 / 4, "three quarters of a turn"],
  [1, "one turn"],
];

/** An amount of turning in a technician's words, nearest by ratio: "a sixth of a turn". */
export function turnInWords(turns: number): string {
  const amount = Math.abs(turns);
  if (amount < 1 / 64) return "a hair";
  if (amount > 1.2) return `${(Math.round(amount * 4) / 4).toString()} turns`;
  return FRACTIONS.reduce((best, f) =>
    Math.abs(Math.log(f[0] / amount)) < Math.abs(Math.log(best[0] / amount)) ? f : best,
  )[1];
}

export const directionInWords = (turns: number): string => (turns >= 0 ? "clockwise" : "anticlockwise");
