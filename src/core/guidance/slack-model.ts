/** A turn and what it did: turns clockwise positive, change of the reading in its unit. */
export interface Turn {
  turns: number;
  change: number;
}

/** A screw with slack, fitted to the turns that were made of it. */
export interface SlackModel {
  /** Change of the reading per turn of the spindle. */
  perTurn: number;
  slackTurns: number;
  /** Turns that would be lost now before the spindle moves, either way. */
  toTakeUp: { clockwise: number; anticlockwise: number };
}

const MOST_SLACK = 0.12;
const STEP = 1 / 400;
/** The hand turns this share more or less than it means to. */
const HAND = 0.03;
const READING_NOISE = 0.01;
/** Screws usually have about so much slack; counts little against what is seen. */
const USUAL_SLACK = 0.03;
const NEWER = 0.85;
/** Of twice the logarithm of the likelihood. */
const AS_LIKELY = 1.5;

/**
 * Least squares over all turns for a screw whose slot moves the spindle only once its slack is taken up. Where in the
 * slack the slot stood at first is fitted too. All models that explain the turns nearly as well as the best, which
 * comes first; none when nothing moved.
 */
export function fitSlack(turns: Turn[]): SlackModel[] {
  const models: Array<SlackModel & { cost: number }> = [];
  for (let slack = 0; slack <= MOST_SLACK + 1e-9; slack += STEP)
    for (const begin of slack === 0 ? [0] : [0, 0.25, 0.5, 0.75, 1]) {
      const { moves, lag } = spindleMoves(turns, slack, begin * slack);
      let mc = 0;
      let mm = 0;
      moves.forEach((move, i) => {
        const weight = weightOf(turns, i);
        mc += weight * move * turns[i].change;
        mm += weight * move * move;
      });
      if (mm === 0 || mc === 0) continue;
      const perTurn = mc / mm;
      let cost = ((slack - USUAL_SLACK) / MOST_SLACK) ** 2;
      moves.forEach((move, i) => {
        const sigma = Math.hypot(READING_NOISE, HAND * Math.abs(perTurn * turns[i].turns));
        const off = (turns[i].change - perTurn * move) / sigma;
        cost += NEWER ** (turns.length - 1 - i) * (off * off + 2 * Math.log(sigma / READING_NOISE));
      });
      models.push({
        cost,
        perTurn,
        slackTurns: slack,
        toTakeUp: { clockwise: lag, anticlockwise: slack - lag },
      });
    }
  models.sort((a, b) => a.cost - b.cost);
  return models.filter(({ cost }) => cost <= models[0].cost + AS_LIKELY);
}

const weightOf = (turns: Turn[], i: number): number =>
  NEWER ** (turns.length - 1 - i) / (READING_NOISE ** 2 + (HAND * turns[i].change) ** 2);

/**
 * How far the spindle goes with each turn of the slot, when `lag` of clockwise slack is still to be taken up at first,
 * and what is still to be taken up at the end.
 */
export function spindleMoves(
  turns: ReadonlyArray<Pick<Turn, "turns">>,
  slack: number,
  lag: number,
): { moves: number[]; lag: number } {
  const moves = turns.map(({ turns: t }) => {
    // the lag shrinks clockwise down to nought and grows anticlockwise up to the slack; the rest moves the spindle
    const after = Math.max(0, Math.min(slack, lag - t));
    const move = t - (lag - after);
    lag = after;
    return move;
  });
  return { moves, lag };
}
