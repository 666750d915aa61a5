import { levenbergMarquardt } from "ml-levenberg-marquardt";
import { responseCauses, type CurveContext, type ResponseCause } from "./response-causes";

export interface CurvePoint {
  frequencyHz: number;
  levelDb: number;
  /** ± at 95 %; the usual of a band when left out. */
  uncertaintyDb?: number;
}

export interface ResponseExplanation {
  /** One cause, or two with "and" between them; "unknown" when none does. */
  cause: string;
  parameters: Record<string, number>;
  rmsErrorDb: number;
  probability: number;
  /** As a technician says it. */
  name: string;
  tryFirst: string;
  /** What the explanation says the response is at each point. */
  fittedDb: number[];
}

export interface ResponseFindings {
  /** The likeliest first. */
  explanations: ResponseExplanation[];
  sentence: string;
}

const USUAL_UNCERTAINTY_DB = 0.5;
const LEAST_SIGMA_DB = 0.25;
/** The reference band has an error too: every curve may lie this much too high or too low. */
const REFERENCE_OFF_DB = 0.8;
const LARGEST_LEVEL_DB = 20;
/** What a curve with no reason scatters by, and how sure two causes at once have to be. */
const WIGGLE_DB = 1.5;
const TWO_CAUSES = 6;
const FLAT_WITHIN_DB = 0.5;
/** A machine with nothing wrong is met more often than any one fault. */
const USUALLY_FLAT = 4;
const MOST_SHOWN = 6;
/** Fewer points explain nothing. */
export const FEWEST_POINTS = 4;

interface Fit {
  causes: ResponseCause[];
  /** Parameters of each cause, in its units, and the level at the end. */
  values: number[][];
  offsetDb: number;
  cost: number;
  rmsErrorDb: number;
  fittedDb: number[];
}

/**
 * Compares what may be behind a playback response by how well each physical model fits it (least squares by the method
 * of Levenberg and Marquardt) and how many parameters it took (Bayesian information criterion), alone and in pairs,
 * against the possibility that none of them is it.
 * @param points at least four, dB re the reference band, corrections made
 * @throws RangeError for fewer points
 */
export function explainResponse(
  points: CurvePoint[],
  curve: Pick<CurveContext, "speedCmPerS" | "equalisation" | "referenceHz" | "azimuthKnown">,
): ResponseFindings {
  if (points.length < FEWEST_POINTS)
    throw new RangeError(`a response needs at least ${FEWEST_POINTS} points, not ${points.length}`);
  const hz = points.map(({ frequencyHz }) => frequencyHz);
  const causes = responseCauses({ ...curve, lowestHz: Math.min(...hz), highestHz: Math.max(...hz) });
  const level = fitCauses([], points, LARGEST_LEVEL_DB);
  const alone = causes.map((cause) => fitCauses([cause], points, REFERENCE_OFF_DB));
  const leveled = causes.map((cause) => fitCauses([cause], points, LARGEST_LEVEL_DB));
  leveled.forEach((fit) => (fit.cost += TWO_CAUSES));
  const pairs = alone.flatMap((a, i) =>
    alone.slice(i + 1).flatMap((b) => {
      const [first, second] = [a.causes[0], b.causes[0]];
      if (first.id === second.id) return [];
      const fit = fitCauses([first, second], points, REFERENCE_OFF_DB, [a, b]);
      return [{ ...fit, cost: fit.cost + TWO_CAUSES }];
    }),
  );
  return weighed([...[level, ...alone, ...leveled, ...pairs].map(named), unknownCause(points)]);
}

type Weighed = Omit<ResponseExplanation, "probability"> & { cost: number };

function weighed(all: Weighed[]): ResponseFindings {
  const least = Math.min(...all.map(({ cost }) => cost));
  const best = new Map<string, Weighed>();
  for (const one of all) if (one.cost < (best.get(one.cause)?.cost ?? Infinity)) best.set(one.cause, one);
  const likely = [...best.values()].map((one) => ({ ...one, weight: Math.exp((least - one.cost) / 2) }));
  const total = likely.reduce((sum, { weight }) => sum + weight, 0);
  const explanations = likely
    .sort((a, b) => a.cost - b.cost)
    .slice(0, MOST_SHOWN)
    .map(({ weight, cause, parameters, rmsErrorDb, name, tryFirst, fittedDb }): ResponseExplanation => ({
      cause,
      parameters,
      rmsErrorDb,
      probability: weight / total,
      name,
      tryFirst,
      fittedDb,
    }));
  return { explanations, sentence: sentenceOf(explanations) };
}

function sentenceOf([first, second]: ResponseExplanation[]): string {
  if (first.cause === "unknown")
    return "No cause that is known here explains this curve. Measure again, play the same tape on a machine known to be right, and look whether the level holds still.";
  if (first.cause === "flat") return "Flat within what can be known. Leave it.";
  const left = `${first.rmsErrorDb.toFixed(2)} dB is left over`;
  const other =
    second && second.probability > 0.25 * first.probability && second.cause !== "unknown"
      ? ` It may as well be ${second.name}.`
      : "";
  return `It looks like ${first.name}; ${left}.${other} ${first.tryFirst}`;
}

/** Standard deviation of a point. */
const sigmaOf = ({ uncertaintyDb = USUAL_UNCERTAINTY_DB }: CurvePoint): number =>
  Math.max(LEAST_SIGMA_DB, uncertaintyDb / 2);

const toUnits = ({ from, to, logarithmic }: ResponseCause["parameters"][number], share: number) =>
  logarithmic ? from * (to / from) ** share : from + (to - from) * share;

/** Least squares with every parameter as a share of its range, from several starts. */
function fitCauses(causes: ResponseCause[], points: CurvePoint[], levelDb: number, from: Fit[] = []): Fit {
  const parameters = causes.flatMap((cause) => cause.parameters);
  const x = points.map(({ frequencyHz }) => frequencyHz);
  const y = points.map((point) => point.levelDb);
  const split = (shares: readonly number[]) => {
    let at = 0;
    return causes.map((cause) => cause.parameters.map((parameter) => toUnits(parameter, shares[at++])));
  };
  const offset = (shares: readonly number[]) => (2 * shares[parameters.length] - 1) * levelDb;
  const model = (shares: readonly number[]) => {
    const values = split(shares);
    return (hz: number) =>
      causes.reduce((sum, cause, i) => sum + cause.gainDb(values[i], hz), 0) + offset(shares);
  };
  // residuals in units of what each point may be off by; the fitted function counts points instead of hertz
  const sigma = points.map(sigmaOf);
  const scaled = (shares: readonly number[]) => {
    const at = model(shares);
    return (i: number) => at(x[i]) / sigma[i];
  };
  const data = { x: x.map((_, i) => i), y: y.map((level, i) => level / sigma[i]) };
  const chiSquare = (shares: readonly number[]) => {
    const at = scaled(shares);
    return data.y.reduce((sum, level, i) => sum + (level - at(i)) ** 2, 0);
  };
  let best: number[] = [];
  let least = Infinity;
  for (const start of startsFor(causes, from, chiSquare)) {
    const found = levenbergMarquardt(data, scaled, {
      initialValues: start,
      minValues: start.map(() => 0),
      maxValues: start.map(() => 1),
      damping: 0.1,
      gradientDifference: 1e-3,
      centralDifference: true,
      maxIterations: 60,
      errorTolerance: 1e-6,
    }).parameterValues;
    const shares = found.every(Number.isFinite) ? found : start;
    const chi = chiSquare(shares);
    if (chi < least) [best, least] = [[...shares], chi];
  }
  const at = model(best);
  const fittedDb = x.map(at);
  const k = parameters.length + 1;
  return {
    causes,
    values: split(best),
    offsetDb: offset(best),
    cost: least + k * Math.log(points.length) + causes.reduce((sum, { rarity }) => sum + rarity, 0),
    rmsErrorDb: Math.sqrt(y.reduce((sum, level, i) => sum + (level - fittedDb[i]) ** 2, 0) / y.length),
    fittedDb,
  };
}

const GRID = [0.1, 0.25, 0.4, 0.55, 0.7, 0.85];
const BEST_STARTS = 3;

/** The best of a coarse grid; for two causes around what each was alone. */
function startsFor(
  causes: ResponseCause[],
  from: Fit[],
  chiSquare: (shares: readonly number[]) => number,
): number[][] {
  const counts = causes.map(({ parameters }) => parameters.length);
  const grids = counts.map((count, c) => {
    const alone = from[c];
    const own = alone ? [sharesOf(alone.causes[0], alone.values[0])] : [];
    return [...own, ...gridOf(count, from.length > 0 ? [0.2, 0.5, 0.8] : GRID)];
  });
  const joined = grids.reduce<number[][]>(
    (lists, grid) => lists.flatMap((list) => grid.map((one) => [...list, ...one])),
    [[]],
  );
  return joined
    .map((shares) => [...shares, 0.5])
    .map((shares) => ({ shares, chi: chiSquare(shares) }))
    .sort((a, b) => a.chi - b.chi)
    .slice(0, BEST_STARTS)
    .map(({ shares }) => shares);
}

const gridOf = (count: number, steps: number[]): number[][] =>
  Array.from({ length: count }).reduce<number[][]>(
    (lists) => lists.flatMap((list) => steps.map((step) => [...list, step])),
    [[]],
  );

const sharesOf = ({ parameters }: ResponseCause, values: number[]): number[] =>
  parameters.map(({ from, to, logarithmic }, i) =>
    logarithmic ? Math.log(values[i] / from) / Math.log(to / from) : (values[i] - from) / (to - from),
  );

function named({ causes, values, offsetDb, ...fit }: Fit): Weighed {
  const ids = causes.map(({ id }) => id);
  const isLevel = causes.length === 0 || Math.abs(offsetDb) > REFERENCE_OFF_DB;
  const flat = causes.length === 0 && Math.abs(offsetDb) <= FLAT_WITHIN_DB;
  const levelName = `a level that is ${Math.abs(offsetDb).toFixed(1)} dB too ${offsetDb > 0 ? "high" : "low"}`;
  const names = causes.map(({ name, amount }, c) => `${name} (${amount(values[c])})`);
  const order = ["azimuth", "spacing", "time constant", "bass time constant"];
  const first = causes.toSorted((a, b) => rank(order, a.id) - rank(order, b.id)).at(0);
  return {
    ...fit,
    cost: flat ? fit.cost - USUALLY_FLAT : fit.cost,
    cause: flat ? "flat" : [...ids, ...(isLevel ? ["level"] : [])].join(" and "),
    parameters: Object.assign(
      {},
      ...causes.map((cause, c) =>
        Object.fromEntries(cause.parameters.map(({ name }, i) => [name, values[c][i]])),
      ),
      { levelDb: offsetDb },
    ) as Record<string, number>,
    name: flat ? "nothing" : [...names, ...(isLevel ? [levelName] : [])].join(", with "),
    tryFirst: first?.tryFirst ?? "Set the playback level.",
  };
}

const rank = (order: string[], id: string) => (order.includes(id) ? order.indexOf(id) : order.length);

/** The curve as points that have nothing to do with each other. */
function unknownCause(points: CurvePoint[]): Weighed {
  const mean = points.reduce((sum, { levelDb }) => sum + levelDb, 0) / points.length;
  const cost = points.reduce((sum, point) => {
    const variance = sigmaOf(point) ** 2;
    const wide = variance + WIGGLE_DB ** 2;
    return sum + (point.levelDb - mean) ** 2 / wide + Math.log(wide / variance);
  }, Math.log(points.length));
  const square = points.reduce((sum, { levelDb }) => sum + (levelDb - mean) ** 2, 0);
  return {
    cause: "unknown",
    parameters: { levelDb: mean },
    rmsErrorDb: Math.sqrt(square / points.length),
    cost,
    name: "something that is not known here",
    tryFirst: "",
    fittedDb: points.map(() => mean),
  };
}
