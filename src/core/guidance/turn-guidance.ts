import { inForce } from "@/core/records/job-records";
import type { Adjustment } from "@/core/records/adjustment";
import type { Reading } from "@/core/records/reading";
import { fitSlack, type SlackModel, type Turn } from "./slack-model";

export interface LearnedTurn extends Turn {
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
  /** Every way to explain the turns, the likeliest first; none before the slack is known. */
  models: SlackModel[];
  lastTurn: LearnedTurn;
  /** Nothing was turned in this job yet: an earlier job on the machine has taught it. */
  fromBefore?: boolean;
}

export type TurnAdvice =
  | { kind: "trial"; turns: number }
  | { kind: "turn"; turns: number; effect: AdjusterEffect }
  | { kind: "wait" }
  /** The number's uncertainty is wider than its limit: which way it is off cannot be told. */
  | { kind: "unclear" }
  | { kind: "stop"; effect: AdjusterEffect; lastTurn: LearnedTurn }
  | { kind: "no answer"; effect: null; lastTurn: LearnedTurn }
  | { kind: "leave"; effect: AdjusterEffect | null };

const TRIAL_TURNS = 0.125;
/** Before the slack is known the screw is stopped short, so as not to pass the target. */
const SHORT_OF_TARGET = 0.85;
const LEAST_SHARE = 0.5;
const NO_ANSWER_CHANGE = 0.03;
/** More than any slack: a turn so long that changed nothing did not reach what is measured. */
const SURELY_MOVES = 0.2;
/** What an earlier job taught holds while the turns of this one do between half and twice of it. */
const STILL_HOLDS = 2;

/**
 * The turns of one adjuster with the readings on either side of each: the last reading before it and the last
 * one before the next turn. Turns with no reading between them count as one, if they went the same way. Turns nobody
 * counted end the chain, since what they did is in no one's books.
 */
export function learnedTurns(
  readings: readonly Reading[],
  adjustments: readonly Adjustment[],
  adjusterId: string,
): LearnedTurn[] {
  const logged = inForce(readings);
  const learned: LearnedTurn[] = [];
  let from = "";
  for (const { turned, to } of betweenReadings(logged, inForce(adjustments))) {
    const own = turned.filter((turn) => turn.adjusterId === adjusterId);
    if (own.some(({ turns }) => turns === null)) learned.length = 0;
    const [first] = own;
    const alone = own.length === turned.length;
    const oneWay = own.every(({ turns }) => turns! * first.turns! > 0);
    if (first && alone && oneWay) {
      const lastAt = own[own.length - 1].at;
      const after = logged.findLast((r) => r.at > lastAt && r.at <= to);
      // sides and bands differ by themselves: only readings of one tell what the turn did
      const before = logged.findLast(
        (r) =>
          r.at > from &&
          r.at <= first.at &&
          r.context.side === after?.context.side &&
          r.context.nominalHz === after?.context.nominalHz,
      );
      if (before && after)
        learned.push({
          turns: own.reduce((sum, { turns }) => sum + turns!, 0),
          change: after.value - before.value,
          ...(own.some(({ atStop }) => atStop) && { atStop: true }),
        });
    }
    from = turned[turned.length - 1].at;
  }
  return learned;
}

/** The turns in groups with no reading inside; `to` is when the next group begins. */
function betweenReadings(logged: readonly Reading[], adjustments: readonly Adjustment[]) {
  const groups: Array<{ turned: Adjustment[]; to: string }> = [];
  for (const turn of adjustments.filter(({ turns }) => turns !== 0)) {
    const last = groups.at(-1);
    const before = last?.turned.at(-1)?.at ?? "";
    if (last && !logged.some(({ at }) => at > before && at <= turn.at)) last.turned.push(turn);
    else {
      if (last) last.to = turn.at;
      groups.push({ turned: [turn], to: "\uffff" });
    }
  }
  return groups;
}

/**
 * Effect per turn and slack from the turns made so far, newest first in weight. The slack counts as known once the
 * screw was turned twice: a turn that goes on shows what the first one lost. Returns null before any turn has moved
 * the reading.
 */
export function effectOf(turns: LearnedTurn[]): AdjusterEffect | null {
  const lastTurn = turns.at(-1);
  const moved = turns.filter(({ change }) => Math.abs(change) >= NO_ANSWER_CHANGE);
  if (!lastTurn || moved.length === 0) return null;
  if (turns.length === 1)
    return {
      perTurn: lastTurn.change / lastTurn.turns,
      slackTurns: 0,
      slackKnown: false,
      models: [],
      lastTurn,
    };
  const models = fitSlack(turns);
  return models.length === 0 ? null : { ...models[0], slackKnown: true, models, lastTurn };
}

/** A number that is to be brought to nought, all in the unit of the learned changes. */
export interface OffTarget {
  value: number;
  uncertainty: number;
  /** Magnitude that passes. */
  limit: number;
  /** Magnitude within which nothing more is to be gained. */
  goodEnough: number;
}

/**
 * What to turn next to bring a number to nought.
 * @param settled whether it has been steady since the last turn
 * @param before turns of an earlier job on the same machine
 */
export function adviseTurn(
  turns: LearnedTurn[],
  { value, uncertainty, limit, goodEnough }: OffTarget,
  settled: boolean,
  before: LearnedTurn[] = [],
): TurnAdvice {
  if (settled && !(uncertainty <= limit)) return { kind: "unclear" };
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
  if (Math.abs(lastTurn.turns) >= SURELY_MOVES && Math.abs(lastTurn.change) < NO_ANSWER_CHANGE)
    return { kind: "no answer", effect: null, lastTurn };
  const wanted = -value / effect.perTurn;
  if (lastTurn.atStop && Math.sign(wanted) === Math.sign(lastTurn.turns))
    return { kind: "stop", effect, lastTurn };
  const amounts = effect.models
    .map(({ perTurn, toTakeUp }) => ({ t: -value / perTurn, toTakeUp }))
    .filter(({ t }) => Math.sign(t) === Math.sign(wanted))
    .map(({ t, toTakeUp }) => Math.abs(t) + (t > 0 ? toTakeUp.clockwise : toTakeUp.anticlockwise));
  // turns to and fro leave slack and effect open: then stop on the way, since going on tells them apart
  const [likeliest] = amounts;
  const bounces = turns.length > 2 && [turns.at(-2)!.turns, wanted].every((t) => t * lastTurn.turns < 0);
  const amount =
    amounts.length === 0
      ? SHORT_OF_TARGET * Math.abs(wanted)
      : bounces
        ? Math.max(LEAST_SHARE * likeliest, (likeliest + Math.min(...amounts)) / 2)
        : likeliest;
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
