import {
  biasAnswers,
  biasError,
  findingsOf,
  type BiasAnswer,
  type BiasFindings,
  type HeardSchool,
} from "./bias-answers";
import { fitBias, isMisfit, placesHeard, type BiasFit, type BiasPoint, type BiasTones } from "./bias-law";
import { alongLaw, tableOfLaw, type LawTable } from "./law-table";
import { rememberSome } from "./remember-some";
import { spindleMoves } from "./slack-model";

/** Of the tones of a bias screw, dB re what went in. */
type Levels = Pick<BiasPoint, "middleDb" | "highDb">;

/** What was heard at one place of a bias screw, by how many of its turns had been made by then. */
export interface BiasReading extends Omit<BiasPoint, "turns"> {
  afterTurns: number;
}

export interface BiasScrew {
  /** Which screw it is, on which tape, and since when its turns are counted: nothing is carried over to another. */
  about: string;
  /** Every turn of it that was counted, clockwise positive, oldest first. */
  turns: readonly number[];
  /** What was heard of it, oldest first. */
  heard: readonly BiasReading[];
  /** What was measured of the other channel where this screw sets both, oldest first: it helps to decide the direction. */
  beside: readonly BiasReading[];
  /** What is heard of it at this moment, after all that; null while nothing stands. */
  standing: BiasReading | null;
  tones: BiasTones;
  overBiasDb: number | null;
}

/** What is known of a bias screw. Turns are those of its spindle. */
export interface BiasKnown extends BiasFindings {
  points: BiasPoint[];
  /** The likeliest way in which the screw acts. */
  law: LawTable;
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

/**
 * The law of a screw and where each school would leave it, its slack counted in. What was heard first is left out as far as
 * no one law gives it together with what was heard since. It takes a while, and it is plain data: it can be thought out aside.
 * @throws RangeError when nothing was heard
 */
export const biasKnown = rememberSome((screw: BiasScrew) => JSON.stringify(screw), workOut);

function workOut(screw: BiasScrew): BiasKnown {
  const heard = screw.standing ? [...screw.heard, screw.standing] : screw.heard;
  if (heard.length === 0) throw new RangeError("Nothing was heard of this screw.");
  const from = (first: number) => fitted(screw, heard.slice(first));
  const all = from(0);
  if (!isMisfit(all.fit) || heard.length < 2) return answered(all, false, screw.overBiasDb);
  // the fewest to leave out: between what fits not and what does
  let [bad, good] = [0, heard.length - 1];
  let found: Fitted | null = null;
  while (good - bad > 1) {
    const middle = (good + bad) >> 1;
    const tried = from(middle);
    if (!isMisfit(tried.fit)) [good, found] = [middle, tried];
    else bad = middle;
  }
  return answered(found ?? from(good), true, screw.overBiasDb);
}

/** Of what fits, and how badly it does. */
interface Fitted {
  cost: number;
  fit: BiasFit;
  best: Pick<BiasKnown, "points" | "nowTurns" | "slackTurns" | "toTakeUp">;
}

function fitted({ turns, tones, beside }: BiasScrew, heard: readonly BiasReading[]): Fitted {
  const turnedBack = turns.some((turn, i) => i > 0 && turn * turns[i - 1] < 0);
  const tried = (turnedBack ? SLACKS : [USUAL_SLACK]).map((slackTurns) => {
    const { moves, lag } = spindleMoves(
      turns.map((turn) => ({ turns: turn })),
      slackTurns,
      slackTurns / 2,
    );
    const at = (count: number) => moves.slice(0, count).reduce((a, b) => a + b, 0);
    const placed = ({ afterTurns, middleDb, highDb, thirdDb }: BiasReading): BiasPoint => ({
      turns: at(afterTurns),
      middleDb,
      highDb,
      thirdDb,
    });
    const points = heard.map(placed);
    const fit = fitBias(points, tones, beside.map(placed));
    const cost = fit.cost + ((slackTurns - USUAL_SLACK) / SLACK_SPREAD) ** 2;
    const toTakeUp = { clockwise: lag, anticlockwise: slackTurns - lag };
    return { cost, fit, best: { points, nowTurns: at(turns.length), slackTurns, toTakeUp } };
  });
  return tried.reduce((one, other) => (other.cost < one.cost ? other : one));
}

/** Where each school would leave the screw by the laws that were found. */
function answered({ best, fit }: Fitted, conflicts: boolean, overBiasDb: number | null): BiasKnown {
  const laws = fit.laws();
  const findings = findingsOf(fit, laws, best.points, overBiasDb);
  const law = tableOfLaw(laws[0], [...best.points.map(({ turns }) => turns), best.nowTurns]);
  return { ...best, ...findings, law, conflicts, answers: biasAnswers(findings, best.points, overBiasDb) };
}

/** Heard at one place alone, two tones tell how far they are from being alike, and nothing of a peak or a least elsewhere. */
const TOLD_BY_ONE_PLACE: Record<HeardSchool, boolean> = {
  flatness: true,
  "over-bias": false,
  "third-harmonic": false,
};

/** How far the bias is off at a place of the screw by a school, dB; null where it cannot be told. */
export const biasErrorAt = (school: HeardSchool, known: BiasKnown, turns: number) =>
  TOLD_BY_ONE_PLACE[school] || placesHeard(known.points) > 1 ? biasError(school, known, turns) : null;

/** A tone that moved by more was turned. */
const MOVED_DB = 0.15;

export const hasMoved = (now: Levels, before: Levels): boolean =>
  Math.max(Math.abs(now.middleDb - before.middleDb), Math.abs(now.highDb - before.highDb)) > MOVED_DB;

/** What is heard while a screw moves may be off by so much from its curves, dB. */
const MOVING_DB = { middle: 0.15, high: 0.3 };
const MOVING_REACH_DB = 5;
const MOVING_STEPS = 400;
const FITS = 9;

/** Where the screw is, by what its two tones do while it moves; null before its curves are known, and where they do not fit. */
export function placeHeard({ law, points }: BiasKnown, heard: Levels): number | null {
  if (placesHeard(points) < 2) return null;
  const turns = points.map((point) => point.turns);
  const reach = MOVING_REACH_DB / Math.abs(law.dbPerTurn);
  const [low, high] = [Math.min(...turns) - reach, Math.max(...turns) + reach];
  let best = { turns: 0, misfit: Infinity };
  for (let i = 0; i <= MOVING_STEPS; i++) {
    const at = low + ((high - low) * i) / MOVING_STEPS;
    const misfit =
      ((alongLaw(law, "middleDb", at) - heard.middleDb) / MOVING_DB.middle) ** 2 +
      ((alongLaw(law, "highDb", at) - heard.highDb) / MOVING_DB.high) ** 2;
    if (misfit < best.misfit) best = { turns: at, misfit };
  }
  return best.misfit < FITS ? best.turns : null;
}

/** How far the slot has to be turned to bring the spindle to a place, slack taken up on the way. */
export function turnsTo(place: number, { nowTurns, toTakeUp }: BiasKnown): number {
  const way = place - nowTurns;
  return way > 0 ? way + toTakeUp.clockwise : way < 0 ? way - toTakeUp.anticlockwise : 0;
}
