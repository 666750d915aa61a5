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
  /** The first explanation fits no better than this one: the curve alone cannot tell them apart. */
  alike: boolean;
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
  /** How badly it fits, and the same with what its causes and parameters cost. */
  chiSquare: number;
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
  const leveled = causes.map((cause) => {
    const fit = fitCauses([cause], points, LARGEST_LEVEL_DB);
    return isLevel(fit, curve.referenceHz) ? { ...fit, cost: fit.cost + TWO_CAUSES } : fit;
  });
  const pairs = alone.flatMap((a, i) =>
    alone.slice(i + 1).flatMap((b) => {
      const [first, second] = [a.causes[0], b.causes[0]];
      if (first.id === second.id) return [];
      const fit = fitCauses([first, second], points, REFERENCE_OFF_DB, [a, b]);
      return [{ ...fit, cost: fit.cost + TWO_CAUSES }];
    }),
  );
  const fits = [level, ...alone, ...leveled, ...pairs];
  return weighed([...fits.map((fit) => named(fit, curve.referenceHz)), unknownCause(points)]);
}

/** An explanation before it is weighed against the others. */
interface Weighed extends Omit<ResponseExplanation, "probability" | "alike"> {
  cost: number;
  chiSquare: number;
  causes: ResponseCause[];
}

/** Fits that differ by less than this in χ² fit a curve equally well. */
const ALIKE = 4;

/** One cause is another, and the curve cannot say which. */
function fitAlike(one: Weighed, other: Weighed): boolean {
  const ids = one.causes.map(({ id }) => id);
  const others = other.causes.filter(({ id }) => !ids.includes(id));
  const sameCount = one.causes.length === other.causes.length && one.causes.length > 0;
  return sameCount && others.length === 1 && other.chiSquare < one.chiSquare + ALIKE;
}

function weighed(all: Weighed[]): ResponseFindings {
  const least = Math.min(...all.map(({ cost }) => cost));
  const best = new Map<string, Weighed>();
  for (const one of all) if (one.cost < (best.get(one.cause)?.cost ?? Infinity)) best.set(one.cause, one);
  const likely = [...best.values()].sort((a, b) => a.cost - b.cost);
  const total = likely.reduce((sum, { cost }) => sum + Math.exp((least - cost) / 2), 0);
  const [first] = likely;
  const alike = likely.filter((other) => other !== first && fitAlike(first, other));
  const rest = likely.filter((other) => other !== first && !alike.includes(other));
  const explanations = [first, ...alike, ...rest]
    .slice(0, Math.max(MOST_SHOWN, 1 + alike.length))
    .map(({ cost, cause, parameters, rmsErrorDb, name, tryFirst, fittedDb }, i): ResponseExplanation => ({
      cause,
      parameters,
      rmsErrorDb,
      probability: Math.exp((least - cost) / 2) / total,
      alike: i > 0 && i <= alike.length,
      name,
      tryFirst,
      fittedDb,
    }));
  return { explanations, sentence: sentenceOf(first, alike) };
}

function sentenceOf(first: Weighed, alike: Weighed[]): string {
  if (first.cause === "unknown")
    return "No cause that is known here explains this curve. Measure again, play the same tape on a machine known to be right, and look whether the level holds still.";
  if (first.cause === "flat") return "Flat within what can be known. Leave it.";
  const looksLike = `It looks like ${first.name}; ${first.rmsErrorDb.toFixed(2)} dB is left over.`;
  if (alike.length === 0) return `${looksLike} ${first.tryFirst}`;
  const causes = [first, ...alike].flatMap((one) => one.causes);
  const tests = causes
    .filter(({ id }, i) => causes.findIndex((other) => other.id === id) === i)
    .toSorted((a, b) => a.toldBy.order - b.toldBy.order)
    .map(({ toldBy }) => toldBy.what);
  const others = alike.map(({ name }) => name).join(", or ");
  return `${looksLike} This curve cannot tell it from ${others}. What would tell, the cheapest first: ${tests.join("; then ")}.`;
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
    let [shares, chi, gained] = [start, chiSquare(start), Infinity];
    for (let round = 0; round < MOST_ROUNDS && gained > LEAST_GAIN; round++) {
      const { parameterValues: found } = levenbergMarquardt(data, scaled, {
        initialValues: shares,
        minValues: shares.map(() => 0),
        maxValues: shares.map(() => 1),
        damping: 0.1,
        gradientDifference: 1e-3,
        centralDifference: true,
        maxIterations: ROUND_ITERATIONS,
        errorTolerance: 1e-6,
      });
      const now = found.every(Number.isFinite) ? chiSquare(found) : Infinity;
      gained = chi - now;
      if (gained > 0) [shares, chi] = [[...found], now];
    }
    if (chi < least) [best, least] = [shares, chi];
  }
  const at = model(best);
  const fittedDb = x.map(at);
  const k = parameters.length + 1;
  return {
    causes,
    values: split(best),
    offsetDb: offset(best),
    chiSquare: least,
    cost: least + k * Math.log(points.length) + causes.reduce((sum, { rarity }) => sum + rarity, 0),
    rmsErrorDb: Math.sqrt(y.reduce((sum, level, i) => sum + (level - fittedDb[i]) ** 2, 0) / y.length),
    fittedDb,
  };
}

/** A fit goes on for as long as a round of it still gains something, in units of χ². */
const ROUND_ITERATIONS = 6;
const MOST_ROUNDS = 10;
const LEAST_GAIN = 0.01;

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

/** Where a curve is usually called 0 dB, when that was not said. */
const USUAL_REFERENCES_HZ = [315, 333, 400, 500, 700, 1000];

/** Whether the level is off as well: a curve that its cause alone would take to 0 dB at the reference is not. */
function isLevel({ causes, values, offsetDb }: Fit, referenceHz: number | undefined): boolean {
  const away = (hz: number) =>
    Math.abs(causes.reduce((sum, cause, c) => sum + cause.gainDb(values[c], hz), offsetDb));
  const references = referenceHz === undefined ? USUAL_REFERENCES_HZ : [referenceHz];
  return Math.min(...references.map(away)) > REFERENCE_OFF_DB;
}

function named(whole: Fit, referenceHz: number | undefined): Weighed {
  const { causes, values, offsetDb, ...fit } = whole;
  const ids = causes.map(({ id }) => id);
  const leveled = causes.length === 0 || isLevel(whole, referenceHz);
  const flat = causes.length === 0 && Math.abs(offsetDb) <= FLAT_WITHIN_DB;
  const levelName = `a level that is ${Math.abs(offsetDb).toFixed(1)} dB too ${offsetDb > 0 ? "high" : "low"}`;
  const names = causes.map(({ name, amount }, c) => `${name} (${amount(values[c])})`);
  const order = ["azimuth", "spacing", "time constant", "bass time constant"];
  const first = causes.toSorted((a, b) => rank(order, a.id) - rank(order, b.id)).at(0);
  return {
    ...fit,
    causes,
    cost: flat ? fit.cost - USUALLY_FLAT : fit.cost,
    cause: flat ? "flat" : [...ids, ...(leveled ? ["level"] : [])].join(" and "),
    parameters: Object.assign(
      {},
      ...causes.map((cause, c) =>
        Object.fromEntries(cause.parameters.map(({ name }, i) => [name, values[c][i]])),
      ),
      { levelDb: offsetDb },
    ) as Record<string, number>,
    name: flat ? "nothing" : [...names, ...(leveled ? [levelName] : [])].join(", with "),
    tryFirst: first?.tryFirst ?? "Set the playback level.",
  };
}

const rank = (order: string[], id: string) => (order.includes(id) ? order.indexOf(id) : order.length);

/** The curve as points that have nothing to do with each other. */
function unknownCause(points: CurvePoint[]): Weighed {
  const mean = points.reduce((sum, { levelDb }) => sum + levelDb, 0) / points.length;
  const chiSquare = points.reduce((sum, point) => {
    const variance = sigmaOf(point) ** 2;
    const wide = variance + WIGGLE_DB ** 2;
    return sum + (point.levelDb - mean) ** 2 / wide + Math.log(wide / variance);
  }, 0);
  const square = points.reduce((sum, { levelDb }) => sum + (levelDb - mean) ** 2, 0);
  return {
    cause: "unknown",
    parameters: { levelDb: mean },
    rmsErrorDb: Math.sqrt(square / points.length),
    causes: [],
    chiSquare,
    cost: chiSquare + Math.log(points.length),
    name: "something that is not known here",
    tryFirst: "",
    fittedDb: points.map(() => mean),
  };
}
