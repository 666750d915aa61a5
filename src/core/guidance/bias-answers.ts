import { fixed } from "@/core/text/number-text";
import {
  isDirectionDecided,
  isMisfit,
  placesHeard,
  type BiasFit,
  type BiasLaw,
  type BiasPoint,
} from "./bias-law";

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
const BEYOND_DB = 7;
const STEPS = 240;
/** An answer that is known no better is none, dB of bias. */
const LARGEST_UNCERTAINTY_DB = 2;
const LEAST_UNCERTAINTY_DB = 0.02;
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
 * Where the screw would be left by each law and school. It takes a while: worked out once for what was measured.
 * No place contradicts the points: where they enclose it, it is looked for between the two that do.
 * @param overBiasDb by how much the high tone is to have dropped past its loudest point; null where the tape has no figure
 */
export function placedByLaws(
  laws: readonly BiasLaw[],
  points: readonly BiasPoint[],
  overBiasDb: number | null,
): PlacedLaw[] {
  const turns = points.map((point) => point.turns);
  const span = { low: Math.min(...turns), high: Math.max(...turns) };
  // laws of one fit are all of one direction
  const rising = laws.length > 0 && laws[0].dbPerTurn > 0;
  const { flatness, nearest, peak, past, least } = enclosedBy(points, rising, overBiasDb);
  return laws.map((law) => {
    const { weight, dbPerTurn } = law;
    const beyond = BEYOND_DB / Math.abs(dbPerTurn);
    const [low, high] = [span.low - beyond, span.high + beyond];
    // from too little bias to too much
    const at = (i: number) => (rising ? low + ((high - low) * i) / STEPS : high - ((high - low) * i) / STEPS);
    const stepOf = (place: number) => ((rising ? place - low : high - place) / (high - low)) * STEPS;
    const along = (curve: (turns: number) => number) =>
      Array.from({ length: STEPS + 1 }, (_, i) => curve(at(i)));
    const [middleDb, highDb, thirdDb] = [law.middleDb, law.highDb, law.thirdDb].map(along);
    const within = (range: Range): [number, number] => [
      range.from === null ? 0 : Math.max(0, Math.floor(stepOf(range.from))),
      range.to === null ? STEPS : Math.min(STEPS, Math.ceil(stepOf(range.to))),
    ];
    const top = extreme(highDb, within(peak), (a, b) => a > b);
    const bottom = extreme(thirdDb, within(least), (a, b) => a < b);
    const isInside = (step: number) => step !== 0 && step !== STEPS;
    const flatAt =
      flatness &&
      theOne(
        crossings(
          highDb.map((db, i) => db - middleDb[i]),
          0,
          at,
          within(flatness),
        ),
        flatness,
        nearest,
      );
    return {
      weight,
      dbPerTurn,
      turns: {
        "over-bias":
          overBiasDb !== null && isInside(top)
            ? (crossings(highDb, highDb[top] - overBiasDb, at, [top, within(past)[1]])[0] ?? null)
            : null,
        flatness: flatness && flatAt !== null ? inside(flatAt, flatness) : null,
        "third-harmonic": isInside(bottom) ? at(bottom) : null,
      },
      loudestTurns: at(top),
    };
  });
}

/** A stretch of the screw, in the direction of rising bias; null for no end that is known. */
interface Range {
  from: number | null;
  to: number | null;
}

/** What two points have to differ by to be different: what noise makes of a level, and of a third harmonic, dB. */
const NOISE_DB = 0.1;
const THIRD_NOISE_DB = 0.8;

/**
 * Where each method stops as far as the points alone decide it.
 * @param rising clockwise raises bias
 * @returns flatness null where the points contradict each other, and the setting that is nearest to it
 */
function enclosedBy(points: readonly BiasPoint[], rising: boolean, overBiasDb: number | null) {
  const sorted = points.toSorted((a, b) => (rising ? a.turns - b.turns : b.turns - a.turns));
  const place = (i: number): number | null => sorted[i]?.turns ?? null;
  const flat = sorted.map(({ highDb, middleDb }) => highDb - middleDb);
  const lastAbove = flat.findLastIndex((db) => db > NOISE_DB);
  const firstBelow = flat.findIndex((db) => db < -NOISE_DB);
  const flatness: Range | null =
    firstBelow >= 0 && firstBelow < lastAbove
      ? null
      : { from: place(lastAbove), to: firstBelow < 0 ? null : place(firstBelow) };

  const levels = sorted.map(({ highDb }) => highDb);
  const loudestDb = Math.max(...levels);
  const loud = levels.flatMap((db, i) => (db > loudestDb - NOISE_DB ? [i] : []));
  const peak: Range = { from: place(loud[0] - 1), to: place(loud.at(-1)! + 1) };
  const dropped = levels.findIndex(
    (db, i) => overBiasDb !== null && i > loud.at(-1)! && db < loudestDb - overBiasDb - NOISE_DB,
  );
  const past: Range = { from: null, to: dropped < 0 ? null : place(dropped) };

  const thirds = sorted.map(({ thirdDb }) => thirdDb ?? Infinity);
  const leastDb = Math.min(...thirds);
  const low = thirds.flatMap((db, i) => (db < leastDb + THIRD_NOISE_DB ? [i] : []));
  const least: Range =
    low.length === 0 ? { from: null, to: null } : { from: place(low[0] - 1), to: place(low.at(-1)! + 1) };
  const nearest = sorted[flat.findIndex((db) => Math.abs(db) === Math.min(...flat.map(Math.abs)))].turns;
  return { flatness, nearest, peak, past, least };
}

/** A place that steps have brought a little beyond its range; one that is open at an end leaves it. */
const inside = (place: number, { from, to }: Range): number =>
  from === null || to === null ? place : Math.min(Math.max(from, to), Math.max(Math.min(from, to), place));

/** Where a curve is most extreme between two steps. */
function extreme(
  values: readonly number[],
  [from, to]: readonly [number, number],
  isMore: (a: number, b: number) => boolean,
): number {
  let at = from;
  for (let i = from + 1; i <= to; i++) if (isMore(values[i], values[at])) at = i;
  return at;
}

/** Why no answer is given although there are points: they fit no one curve, or do not show which direction raises bias. */
export type BiasDoubt = "misfit" | "direction";

const DOUBTS: Record<BiasDoubt, string> = {
  misfit:
    "The settings do not fit one curve. Settings mixed up, level changed between passes, automatic level control or a limiter, noise reduction on, or clipping: check these and record the passes again.",
  direction: "The settings do not show which direction raises bias: measure a setting farther away.",
};

/** What the points give of a screw, as far as it can be handed on as plain data. */
export interface BiasFindings {
  /** Where each of the laws that are about as likely would leave it, the likeliest first. */
  placed: PlacedLaw[];
  doubt: BiasDoubt | null;
  /** By how much the residuals of the points widen the ± of every answer; 1 where they are as usual. */
  widening: number;
}

/** Twice the usual, one point that is left out widens what the others give. */
const USUAL_LEFT_OUT = 2.5;

/**
 * What a fit gives. A doubt needs two settings at least: of one nothing is asked that it could not give.
 * @param overBiasDb by how much the high tone is to have dropped past its loudest point; null where the tape has no figure
 */
export function findingsOf(
  fit: BiasFit,
  laws: readonly BiasLaw[],
  points: readonly BiasPoint[],
  overBiasDb: number | null,
): BiasFindings {
  const several = placesHeard(points) > 1;
  return {
    placed: placedByLaws(laws, points, overBiasDb),
    doubt: !several ? null : isMisfit(fit) ? "misfit" : isDirectionDecided(fit) ? null : "direction",
    widening: Math.max(1, Math.max(...fit.leftOut) / USUAL_LEFT_OUT),
  };
}

/** Where each method would leave the screw, by what is likely of how it acts. @param overBiasDb as the laws were placed with */
export function biasAnswers(
  findings: BiasFindings,
  points: readonly BiasPoint[],
  overBiasDb: number | null,
): BiasAnswer[] {
  return HEARD_SCHOOLS.map((school) => {
    const none = (says: string): BiasAnswer => ({ school, turns: null, uncertaintyTurns: 0, says });
    if (placesHeard(points) < 2) return none("Measure at two settings of the screw first.");
    if (school === "over-bias" && overBiasDb === null)
      return none("This tape has no over-bias figure entered.");
    return findings.doubt ? none(DOUBTS[findings.doubt]) : answerOf(school, findings);
  });
}

/**
 * How far the bias is from where a method would leave it, dB, too much bias positive; null where it cannot be measured. By
 * flatness the sign does not depend on the direction of the screw.
 */
export function biasError(
  school: HeardSchool,
  { placed, doubt, widening }: BiasFindings,
  nowTurns: number,
): { errorDb: number; uncertaintyDb: number } | null {
  if (doubt === "misfit" || (doubt === "direction" && school !== "flatness")) return null;
  const weighed = weigh(placed, ({ turns, dbPerTurn }) => {
    const place = turns[school];
    return place === null ? null : (nowTurns - place) * dbPerTurn;
  });
  if (weighed === null) return null;
  return {
    errorDb: weighed.mean,
    uncertaintyDb: Math.hypot(2 * widening * weighed.deviation, LEAST_UNCERTAINTY_DB),
  };
}

/** About where a method would leave the screw, however uncertain: a setting to measure at next. Null where nothing is known. */
export const roughPlace = (school: HeardSchool, { placed, doubt }: BiasFindings): number | null =>
  doubt ? null : (weigh(placed, ({ turns }) => turns[school])?.mean ?? null);

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

function answerOf(school: HeardSchool, { placed, widening }: BiasFindings): BiasAnswer {
  const unknown = { school, turns: null, uncertaintyTurns: 0, says: BEYOND[school] };
  const place = weigh(placed, (one) => one.turns[school]);
  const rate = weigh(placed, (one) => (one.turns[school] === null ? null : Math.abs(one.dbPerTurn)));
  if (place === null || rate === null) return unknown;
  const [turns, dbPerTurn, spread] = [place.mean, rate.mean, 2 * widening * place.deviation];
  const uncertaintyTurns = Math.hypot(spread, LEAST_UNCERTAINTY_DB / dbPerTurn);
  if (uncertaintyTurns * dbPerTurn > LARGEST_UNCERTAINTY_DB) return unknown;
  return { school, turns, uncertaintyTurns, says: STOPS[school] };
}

const STOPS: Record<HeardSchool, string> = {
  "over-bias": "The high tone has dropped past its peak by the tape's figure.",
  flatness: "The high tone is level with the mid tone.",
  "third-harmonic": "The third harmonic is at its minimum.",
};
const BEYOND: Record<HeardSchool, string> = {
  "over-bias": "Too few settings around the peak of the high tone: measure on both sides of it.",
  flatness:
    "Too few settings around flatness: measure one with the high tone above, and one with it below, the mid tone.",
  "third-harmonic":
    "The minimum lies beyond these settings: measure farther on, where the third harmonic rises again.",
};

const NAMES: Record<HeardSchool, string> = {
  "over-bias": "over-bias",
  flatness: "flatness",
  "third-harmonic": "least third harmonic",
};

/** "Over-bias at 0.31, flatness at 0.25 turns; least third harmonic inconclusive." */
export function biasSentence(answers: readonly BiasAnswer[]): string {
  const told = answers.flatMap(({ school, turns }) =>
    turns === null ? [] : [`${NAMES[school]} at ${fixed(turns, 2, true)}`],
  );
  const untold = answers.flatMap(({ school, turns }) => (turns === null ? [NAMES[school]] : []));
  const sentence = [
    told.length > 0 && `${told.join(", ")} turns`,
    untold.length > 0 && `${untold.join(" and ")} inconclusive`,
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

/** Where a curve falls through a level between two steps. */
const crossings = (
  values: readonly number[],
  level: number,
  at: (step: number) => number,
  [from, to]: readonly [number, number],
): number[] =>
  Array.from({ length: Math.max(0, to - from) }, (_, k) => from + k).flatMap((i) =>
    values[i] >= level && values[i + 1] < level
      ? [at(i + (values[i] - level) / (values[i] - values[i + 1]))]
      : [],
  );

/** Of several places the one next to what was measured. @param nearest the setting that is nearest to it */
function theOne(places: readonly number[], { from, to }: Range, nearest: number): number | null {
  if (places.length === 0) return null;
  if (from !== null) return places[0];
  if (to !== null) return places.at(-1)!;
  return places.reduce((one, other) => (Math.abs(other - nearest) < Math.abs(one - nearest) ? other : one));
}
