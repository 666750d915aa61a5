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

/**
 * Where each school would leave the screw, by what is likely of how it acts.
 * @param overBiasDb by how much the high tone is to have dropped past its loudest point; null where the tape has no figure
 */
export function biasAnswers(
  laws: readonly BiasLaw[],
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
    const placed = laws.map((law) => ({
      weight: law.weight,
      dbPerTurn: Math.abs(law.dbPerTurn),
      turns: placeOf(school, law, points, overBiasDb ?? 0),
    }));
    return answerOf(school, placed);
  });
}

/** How far the bias is from where a school would leave it, dB, too much bias positive; null where it cannot be told. */
export function biasError(
  school: HeardSchool,
  laws: readonly BiasLaw[],
  points: readonly BiasPoint[],
  overBiasDb: number | null,
  nowTurns: number,
): { errorDb: number; uncertaintyDb: number } | null {
  if (school === "over-bias" && overBiasDb === null) return null;
  const all = laws.reduce((sum, { weight }) => sum + weight, 0);
  const found = laws.flatMap((law) => {
    const turns = placeOf(school, law, points, overBiasDb ?? 0);
    return turns === null ? [] : [{ weight: law.weight, db: (nowTurns - turns) * law.dbPerTurn }];
  });
  const weighed = weigh(found, all, ({ db }) => db);
  if (all === 0 || weighed === null) return null;
  return {
    errorDb: weighed.mean,
    uncertaintyDb: Math.hypot(2 * weighed.deviation, LEAST_UNCERTAINTY_DB),
  };
}

/** Mean and standard deviation over what is likely; null where too little of it has such a value. */
function weigh<T extends { weight: number }>(found: readonly T[], all: number, of: (one: T) => number) {
  const weight = found.reduce((sum, one) => sum + one.weight, 0);
  if (weight < FEWEST_SHARE * all) return null;
  const mean = found.reduce((sum, one) => sum + one.weight * of(one), 0) / weight;
  const variance = found.reduce((sum, one) => sum + one.weight * (of(one) - mean) ** 2, 0) / weight;
  return { mean, deviation: Math.sqrt(variance) };
}

interface Placed {
  weight: number;
  dbPerTurn: number;
  turns: number | null;
}

function answerOf(school: HeardSchool, placed: readonly Placed[]): BiasAnswer {
  const all = placed.reduce((sum, { weight }) => sum + weight, 0);
  const found = placed.filter((one): one is Placed & { turns: number } => one.turns !== null);
  const unknown = { school, turns: null, uncertaintyTurns: 0, says: BEYOND[school] };
  const place = weigh(found, all, (one) => one.turns);
  const rate = weigh(found, all, (one) => one.dbPerTurn);
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
export function peakToHear(laws: readonly BiasLaw[], points: readonly BiasPoint[]): number | null {
  if (laws.length === 0 || points.length === 0) return null;
  const placed = laws.map((law) => {
    const at = placesOf(law, points);
    const values = Array.from({ length: STEPS + 1 }, (_, i) => law.highDb(at(i)));
    return { weight: law.weight, turns: at(values.indexOf(Math.max(...values))) };
  });
  const all = placed.reduce((sum, { weight }) => sum + weight, 0);
  if (all === 0) return null;
  const turns = placed.reduce((sum, one) => sum + one.weight * one.turns, 0) / all;
  const [{ dbPerTurn }] = laws;
  const lowestDb = Math.min(...points.map((point) => (point.turns - turns) * dbPerTurn));
  return lowestDb < AT_PEAK_DB ? null : turns;
}

/** Places that answers are looked for at, by their step: from too little bias to too much. */
function placesOf({ dbPerTurn }: BiasLaw, points: readonly BiasPoint[]): (step: number) => number {
  const turns = points.map((point) => point.turns);
  const beyond = BEYOND_DB / Math.abs(dbPerTurn);
  const [low, high] = [Math.min(...turns) - beyond, Math.max(...turns) + beyond];
  return (i) => (dbPerTurn > 0 ? low + ((high - low) * i) / STEPS : high - ((high - low) * i) / STEPS);
}

function placeOf(
  school: HeardSchool,
  law: BiasLaw,
  points: readonly BiasPoint[],
  overBiasDb: number,
): number | null {
  const at = placesOf(law, points);
  const values = Array.from({ length: STEPS + 1 }, (_, i) => valueOf(school, law, at(i)));
  switch (school) {
    case "flatness":
      return crossing(values, 0, at, 0);
    case "over-bias": {
      const top = values.indexOf(Math.max(...values));
      return top === 0 || top === STEPS ? null : crossing(values, values[top] - overBiasDb, at, top);
    }
    case "third-harmonic": {
      const bottom = values.indexOf(Math.min(...values));
      return bottom === 0 || bottom === STEPS ? null : at(bottom);
    }
  }
}

const valueOf = (school: HeardSchool, law: BiasLaw, turns: number): number => {
  switch (school) {
    case "flatness":
      return law.highDb(turns) - law.middleDb(turns);
    case "over-bias":
      return law.highDb(turns);
    case "third-harmonic":
      return law.thirdDb(turns);
  }
};

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
