import { biasAnswers, biasError, type BiasAnswer, type HeardSchool } from "./bias-answers";
import { biasLaws, type BiasLaw, type BiasPoint, type BiasTones } from "./bias-law";
import { spindleMoves } from "./slack-model";

/** What was heard at one place of a bias screw, by how many of its turns had been made by then. */
export interface BiasReading extends Omit<BiasPoint, "turns"> {
  afterTurns: number;
  /** Heard since listening began, not read from the records. */
  live: boolean;
}

export interface BiasScrew {
  /** Every turn of it that was counted, clockwise positive, oldest first. */
  turns: readonly number[];
  heard: readonly BiasReading[];
  tones: BiasTones;
  overBiasDb: number | null;
}

/** What is known of a bias screw. Turns are those of its spindle. */
export interface BiasKnown {
  points: BiasPoint[];
  laws: BiasLaw[];
  answers: BiasAnswer[];
  nowTurns: number;
  slackTurns: number;
  /** What was logged before does not fit what is heard now, and is left out. */
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

/** The law of a screw and where each school would leave it, its slack counted in. */
export function biasKnown(screw: BiasScrew): BiasKnown {
  const all = fitted(screw);
  const live = screw.heard.filter((one) => one.live);
  if (all.cost < MOST_COST || live.length === 0 || live.length === screw.heard.length)
    return { ...all.best, conflicts: false };
  return { ...fitted({ ...screw, heard: live }).best, conflicts: true };
}

function fitted({ turns, heard, tones, overBiasDb }: BiasScrew): {
  cost: number;
  best: Omit<BiasKnown, "conflicts">;
} {
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
  const { best, cost } = tried.reduce((one, other) => (other.cost < one.cost ? other : one));
  return { cost, best: { ...best, answers: biasAnswers(best.laws, best.points, overBiasDb) } };
}

/** How far the bias is off now by a school, dB; null where it cannot be told. */
export const biasErrorNow = (
  school: HeardSchool,
  { laws, points, nowTurns }: BiasKnown,
  overBiasDb: number | null,
) => biasError(school, laws, points, overBiasDb, nowTurns);

/** How far the slot has to be turned to bring the spindle to a place, slack taken up on the way. */
export function turnsTo(place: number, { nowTurns, toTakeUp }: BiasKnown): number {
  const way = place - nowTurns;
  return way > 0 ? way + toTakeUp.clockwise : way < 0 ? way - toTakeUp.anticlockwise : 0;
}
