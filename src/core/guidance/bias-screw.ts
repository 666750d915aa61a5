import {
  biasAnswers,
  biasError,
  placedByLaws,
  type BiasAnswer,
  type HeardSchool,
  type PlacedLaw,
} from "./bias-answers";
import { biasLaws, placesHeard, type BiasLaw, type BiasPoint, type BiasTones } from "./bias-law";
import { spindleMoves } from "./slack-model";

/** What was heard at one place of a bias screw, by how many of its turns had been made by then. */
export interface BiasReading extends Omit<BiasPoint, "turns"> {
  afterTurns: number;
}

export interface BiasScrew {
  /** Every turn of it that was counted, clockwise positive, oldest first. */
  turns: readonly number[];
  /** Oldest first. */
  heard: readonly BiasReading[];
  tones: BiasTones;
  overBiasDb: number | null;
}

/** What is known of a bias screw. Turns are those of its spindle. */
export interface BiasKnown {
  points: BiasPoint[];
  laws: BiasLaw[];
  /** Where each of the laws would have it left. */
  placed: PlacedLaw[];
  answers: BiasAnswer[];
  nowTurns: number;
  slackTurns: number;
  /** What was heard first does not fit what was heard since, and is left out. */
  conflicts: boolean;
  /** Turns that would be lost now before the spindle moves, either way. */
  toTakeUp: { clockwise: number; anticlockwise: number };
}

/** Slack that screws have, tried where the direction was changed; otherwise it cannot be told and is taken as usual. */
const SLACKS = [0, 0.03, 0.06, 0.09];
const USUAL_SLACK = 0.03;
const SLACK_SPREAD = 0.05;

/** No one law gives such points: they are of another tape, or of another machine. */
const MOST_COST = 30;

/**
 * The law of a screw and where each school would leave it, its slack counted in. What was heard first is left out as far as
 * no one law gives it together with what was heard since.
 */
export function biasKnown(screw: BiasScrew): BiasKnown {
  const from = (first: number) => fitted({ ...screw, heard: screw.heard.slice(first) });
  const all = from(0);
  if (all.cost < MOST_COST || screw.heard.length < 2) return answered(all, false, screw.overBiasDb);
  // the fewest to leave out: between what fits not and what does
  let [bad, good] = [0, screw.heard.length - 1];
  let found: Fitted | null = null;
  while (good - bad > 1) {
    const middle = (good + bad) >> 1;
    const tried = from(middle);
    if (tried.cost < MOST_COST) [good, found] = [middle, tried];
    else bad = middle;
  }
  return answered(found ?? from(good), true, screw.overBiasDb);
}

/** Of what fits, and how badly it does. */
interface Fitted {
  cost: number;
  best: Pick<BiasKnown, "points" | "laws" | "nowTurns" | "slackTurns" | "toTakeUp">;
}

function fitted({ turns, heard, tones }: BiasScrew): Fitted {
  const turnedBack = turns.some((turn, i) => i > 0 && turn * turns[i - 1] < 0);
  const tried = (turnedBack ? SLACKS : [USUAL_SLACK]).map((slackTurns) => {
    const { moves, lag } = spindleMoves(
      turns.map((turn) => ({ turns: turn })),
      slackTurns,
      slackTurns / 2,
    );
    const at = (count: number) => moves.slice(0, count).reduce((a, b) => a + b, 0);
    const points = heard.map(({ afterTurns, middleDb, highDb, thirdDb }) => ({
      turns: at(afterTurns),
      middleDb,
      highDb,
      thirdDb,
    }));
    const laws = biasLaws(points, tones);
    const cost = (laws.at(0)?.cost ?? 0) + ((slackTurns - USUAL_SLACK) / SLACK_SPREAD) ** 2;
    const toTakeUp = { clockwise: lag, anticlockwise: slackTurns - lag };
    return { cost, best: { points, laws, nowTurns: at(turns.length), slackTurns, toTakeUp } };
  });
  return tried.reduce((one, other) => (other.cost < one.cost ? other : one));
}

/** Where each school would leave the screw by the laws that were found. */
function answered({ best }: Fitted, conflicts: boolean, overBiasDb: number | null): BiasKnown {
  const placed = placedByLaws(best.laws, best.points, overBiasDb);
  return { ...best, conflicts, placed, answers: biasAnswers(placed, best.points, overBiasDb) };
}

/** How far the bias is off at a place of the screw by a school, dB; null where it cannot be told. */
export const biasErrorAt = (school: HeardSchool, { placed }: BiasKnown, turns: number) =>
  biasError(school, placed, turns);

/** What is heard while a screw moves may be off by so much from its curves, dB. */
const MOVING_DB = { middle: 0.15, high: 0.3 };
const MOVING_REACH_DB = 5;
const MOVING_STEPS = 400;
const FITS = 9;

/** Where the screw is, by what its two tones do while it moves; null before its curves are known, and where they do not fit. */
export function placeHeard(
  { laws, points }: BiasKnown,
  heard: Pick<BiasPoint, "middleDb" | "highDb">,
): number | null {
  if (placesHeard(points) < 2) return null;
  const turns = points.map((point) => point.turns);
  const [law] = laws;
  const reach = MOVING_REACH_DB / Math.abs(law.dbPerTurn);
  const [low, high] = [Math.min(...turns) - reach, Math.max(...turns) + reach];
  let best = { turns: 0, misfit: Infinity };
  for (let i = 0; i <= MOVING_STEPS; i++) {
    const at = low + ((high - low) * i) / MOVING_STEPS;
    const misfit =
      ((law.middleDb(at) - heard.middleDb) / MOVING_DB.middle) ** 2 +
      ((law.highDb(at) - heard.highDb) / MOVING_DB.high) ** 2;
    if (misfit < best.misfit) best = { turns: at, misfit };
  }
  return best.misfit < FITS ? best.turns : null;
}

/** How far the slot has to be turned to bring the spindle to a place, slack taken up on the way. */
export function turnsTo(place: number, { nowTurns, toTakeUp }: BiasKnown): number {
  const way = place - nowTurns;
  return way > 0 ? way + toTakeUp.clockwise : way < 0 ? way - toTakeUp.anticlockwise : 0;
}
