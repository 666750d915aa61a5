import { fixed } from "@/core/text/number-text";
import { placesHeard, type BiasLaw, type BiasPoint } from "./bias-law";

/** The schools whose answer is heard; the maker's figure is read off a meter. */
export const HEARD_SCHOOLS = ["over-bias", "flatness", "third-harmonic"] as const;
export type HeardSchool = (typeof HEARD_SCHOOLS)[number];

/** Where a school would stop. */
export interface BiasAnswer {
  school: HeardSchool;
  /** On the scale of the points; null where it cannot be told. */
  turns: number | null;
  /** ± at 95 %. */
  uncertaintyTurns: number;
  says: string;
}

/** How far beyond the points an answer is looked for, dB of bias, and in how fine steps. */
const BEYOND_DB = 5;
const STEPS = 360;
/** An answer that is known no better is none, dB of bias. */
const LARGEST_UNCERTAINTY_DB = 1.6;
const LEAST_UNCERTAINTY_DB = 0.15;
/** Answers of less than this share of what is likely are none. */
const FEWEST_SHARE = 0.8;

/** One way in which the screw may act, and where it would be left then, on the scale of the points. */
export interface PlacedLaw {
  weight: number;
  /** Bias per turn, dB, clockwise positive. */
  dbPerTurn: number;
  /** By each school; null where this law does not tell it. */
  turns: Record<HeardSchool, number | null>;
  /** Where the high tone is loudest. */
  loudestTurns: number;
}

/**
 * Where the screw would be left by each law and school. It takes a while: worked out once for what was heard.
 * @param overBiasDb by how much the high tone is to have dropped past its loudest point; null where the tape has no figure
 */
export function placedByLaws(
  laws: readonly BiasLaw[],
  points: readonly BiasPoint[],
  overBiasDb: number | null,
): PlacedLaw[] {
  const turns = points.map((point) => point.turns);
  return laws.map((law) => {
    const { weight, dbPerTurn } = law;
    const beyond = BEYOND_DB / Math.abs(dbPerTurn);
    const [low, high] = [Math.min(...turns) - beyond, Math.max(...turns) + beyond];
    // from too little bias to too much
    const at = (i: number) =>
      dbPerTurn > 0 ? low + ((high - low) * i) / STEPS : high - ((high - low) * i) / STEPS;
    const along = (curve: (turns: number) => number) =>
      Array.from({ length: STEPS + 1 }, (_, i) => curve(at(i)));
    const [middleDb, highDb, thirdDb] = [law.middleDb, law.highDb, law.thirdDb].map(along);
    const top = highDb.indexOf(Math.max(...highDb));
    const bottom = thirdDb.indexOf(Math.min(...thirdDb));
    const isInside = (step: number) => step !== 0 && step !== STEPS;
    return {
      weight,
      dbPerTurn,
      turns: {
        "over-bias":
          overBiasDb !== null && isInside(top) ? crossing(highDb, highDb[top] - overBiasDb, at, top) : null,
        flatness: crossing(
          highDb.map((db, i) => db - middleDb[i]),
          0,
          at,
          0,
        ),
        "third-harmonic": isInside(bottom) ? at(bottom) : null,
      },
      loudestTurns: at(top),
    };
  });
}

/**
 * Where each school would leave the screw, by what is likely of how it acts.
 * @param overBiasDb the figure that the laws were placed with
 */
export function biasAnswers(
  placed: readonly PlacedLaw[],
  points: readonly BiasPoint[],
  overBiasDb: number | null,
): BiasAnswer[] {
  return HEARD_SCHOOLS.map((school) => {
    if (placesHeard(points) < 2)
      return { school, turns: null, uncertaintyTurns: 0, says: "Hear it at two places of the screw first." };
    if (school === "over-bias" && overBiasDb === null)
      return {
        school,
        turns: null,
        uncertaintyTurns: 0,
        says: "This tape has no over-bias figure written down.",
      };
    return answerOf(school, placed);
  });
}

/** How far the bias is from where a school would leave it, dB, too much bias positive; null where it cannot be told. */
export function biasError(
  school: HeardSchool,
  placed: readonly PlacedLaw[],
  nowTurns: number,
): { errorDb: number; uncertaintyDb: number } | null {
  const weighed = weigh(placed, ({ turns, dbPerTurn }) => {
    const place = turns[school];
    return place === null ? null : (nowTurns - place) * dbPerTurn;
  });
  if (weighed === null) return null;
  return {
    errorDb: weighed.mean,
    uncertaintyDb: Math.hypot(2 * weighed.deviation, LEAST_UNCERTAINTY_DB),
  };
}

/** Mean and standard deviation over what is likely; null where too little of it has such a value. */
function weigh(placed: readonly PlacedLaw[], of: (one: PlacedLaw) => number | null) {
  const found = placed.flatMap((one) => {
    const value = of(one);
    return value === null ? [] : [{ weight: one.weight, value }];
  });
  const all = totalOf(placed);
  const weight = totalOf(found);
  if (all === 0 || weight < FEWEST_SHARE * all) return null;
  const mean = found.reduce((sum, one) => sum + one.weight * one.value, 0) / weight;
  const variance = found.reduce((sum, one) => sum + one.weight * (one.value - mean) ** 2, 0) / weight;
  return { mean, deviation: Math.sqrt(variance) };
}

const totalOf = (list: ReadonlyArray<{ weight: number }>) =>
  list.reduce((sum, { weight }) => sum + weight, 0);

function answerOf(school: HeardSchool, placed: readonly PlacedLaw[]): BiasAnswer {
  const unknown = { school, turns: null, uncertaintyTurns: 0, says: BEYOND[school] };
  const place = weigh(placed, (one) => one.turns[school]);
  const rate = weigh(placed, (one) => (one.turns[school] === null ? null : Math.abs(one.dbPerTurn)));
  if (place === null || rate === null) return unknown;
  const [turns, dbPerTurn, spread] = [place.mean, rate.mean, 2 * place.deviation];
  const uncertaintyTurns = Math.hypot(spread, LEAST_UNCERTAINTY_DB / dbPerTurn);
  if (uncertaintyTurns * dbPerTurn > LARGEST_UNCERTAINTY_DB) return unknown;
  return { school, turns, uncertaintyTurns, says: STOPS[school] };
}

const STOPS: Record<HeardSchool, string> = {
  "over-bias": "The high tone has dropped by the tape's figure past its loudest point.",
  flatness: "The high tone comes back as loud as the middle one.",
  "third-harmonic": "The third harmonic is least.",
};
const BEYOND: Record<HeardSchool, string> = {
  "over-bias": "Cannot be told from these places: hear it on both sides of where the high tone is loudest.",
  flatness:
    "Cannot be told from these places: hear it where the high tone is louder, and where it is softer, than the middle one.",
  "third-harmonic":
    "Cannot be told from these places: hear it farther on, where the third harmonic rises again.",
};

const NAMES: Record<HeardSchool, string> = {
  "over-bias": "over-bias",
  flatness: "flatness",
  "third-harmonic": "the least third harmonic",
};

/** "Over-bias at 0.31, flatness at 0.25 turns; the least third harmonic cannot be told." */
export function biasSentence(answers: readonly BiasAnswer[]): string {
  const told = answers.flatMap(({ school, turns }) =>
    turns === null ? [] : [`${NAMES[school]} at ${fixed(turns, 2, true)}`],
  );
  const untold = answers.flatMap(({ school, turns }) => (turns === null ? [NAMES[school]] : []));
  const sentence = [
    told.length > 0 && `${told.join(", ")} turns`,
    untold.length > 0 && `${untold.join(" and ")} cannot be told`,
  ]
    .filter(Boolean)
    .join("; ");
  return `${sentence[0].toUpperCase()}${sentence.slice(1)}.`;
}

/** Nearer to it than this, dB of bias, the high tone was heard at its loudest. */
const AT_PEAK_DB = 0.7;

/**
 * Where the high tone is loudest, while it was not heard there: over-bias is a drop from there, and is told well only once it
 * was. Null once it was heard there or below, and while nothing is known of the screw.
 */
export function peakToHear(placed: readonly PlacedLaw[], points: readonly BiasPoint[]): number | null {
  const loudest = weigh(placed, ({ loudestTurns }) => loudestTurns);
  if (loudest === null || points.length === 0) return null;
  const turns = loudest.mean;
  const [{ dbPerTurn }] = placed;
  const lowestDb = Math.min(...points.map((point) => (point.turns - turns) * dbPerTurn));
  return lowestDb < AT_PEAK_DB ? null : turns;
}

/** Where a curve first falls through a level, from a step on. */
function crossing(
  values: readonly number[],
  level: number,
  at: (step: number) => number,
  from: number,
): number | null {
  for (let i = from; i < values.length - 1; i++)
    if (values[i] >= level && values[i + 1] < level)
      return at(i + (values[i] - level) / (values[i] - values[i + 1]));
  return null;
}
