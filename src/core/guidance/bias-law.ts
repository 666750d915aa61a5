import { SeededRandom } from "@/core/dsp/seeded-random";
import { asAtCassetteSpeed } from "@/core/standards/bias-curves";
import { sensitivityDb, thirdDb } from "./bias-curves";
import { curveThroughPoints } from "./curve-through-points";
import { fitByDampedSteps, type Fitted, type NormalEquations, type Residuals } from "./damped-steps";
import { likelyValues } from "./likely-walk";
import { rememberSome } from "./remember-some";
import { TabulatedCurve } from "./tabulated-curve";

/** What came back at one place of the bias screw, dB re what went in. */
export interface BiasPoint {
  turns: number;
  /** A middle and a high tone, 20 dB down. */
  middleDb: number;
  highDb: number;
  /** Third harmonic of a middle tone at 0 level re the tone; null where noise hides it. */
  thirdDb: number | null;
}

/** At how many places of its screw bias was heard. */
export const placesHeard = (points: ReadonlyArray<Pick<BiasPoint, "turns">>): number =>
  new Set(points.map(({ turns }) => turns)).size;

export interface BiasTones {
  middleHz: number;
  highHz: number;
  speedCmPerS: number;
}

/** One way in which the screw may act: the curves over its turns, and how likely it is beside the others. */
export interface BiasLaw {
  weight: number;
  /** Bias per turn, dB, clockwise positive. */
  dbPerTurn: number;
  middleDb(turns: number): number;
  highDb(turns: number): number;
  thirdDb(turns: number): number;
}

const CURVES = ["middle", "high", "third"] as const;
/** What the shapes are believed to, beside what is measured: how far the table and another tape differ. */
const MISFIT_DB = { middle: 0.06, high: 0.12, third: 0.4 } as const;
/** How far a curve strays from the shape, and over how much bias it hangs together. */
const STRAY_DB = { middle: 0.3, high: 0.5, third: 1 } as const;
const STRAY_LENGTH_DB = 2.5;
const MEASURED_DB = { middle: 0.03, high: 0.05, third: 0.2 } as const;
const SIGMA_DB = {
  middle: Math.hypot(MISFIT_DB.middle, MEASURED_DB.middle),
  high: Math.hypot(MISFIT_DB.high, MEASURED_DB.high),
  third: Math.hypot(MISFIT_DB.third, MEASURED_DB.third),
} as const;
/** Of the screw: usual bias per turn, and where it usually stands re the recommended bias. */
const USUAL_DB_PER_TURN = 8;
const DB_PER_TURN_SPREAD = 1;
const USUAL_OFF_DB = 3.5;
const LEVEL_SPREAD_DB = 12;
/** By how much each curve may lie elsewhere on the bias axis, and be deeper or flatter. */
const SHIFT_DB = { middle: 0.7, high: 0.8, third: 0.9 } as const;
const DEPTH = 0.25;
const STARTS_DB_PER_TURN = [2.5, 6, 12, 25];
const STARTS_OFF_DB = [-5, -2.5, 0, 2.5];
/** Every start is followed a little way, the most promising to the end. */
const FIRST_ROUNDS = 5;
const GO_ON = 7;
const ROUNDS = 30;
/** Of twice the logarithm of the likelihood: what fits worse is not counted. */
const AS_LIKELY = 9;
const SEED = 31;

/** What fits points best, before anything is drawn from it. */
export interface BiasFit {
  /** How badly the shapes fit, and how far from usual they are; twice the logarithm of a likelihood. */
  cost: number;
  /** The likeliest law first. */
  laws(): BiasLaw[];
}

/**
 * How bias acts over the turns of its screw: the levels of a middle and a high tone and the third harmonic, fitted all
 * together by their typical shapes (least squares with what is usual as prior knowledge), each curve then led through
 * its points. Several laws where what was measured leaves several open; they are drawn from what is likely. One place
 * alone tells about how the bias stands, by what is usual, and nothing of what the screw does.
 */
export const biasLaws = (points: readonly BiasPoint[], tones: BiasTones): BiasLaw[] =>
  points.length === 0 ? [] : fitBias(points, tones).laws();

/** The fit that those laws are drawn from. @param points one at least */
export function fitBias(points: readonly BiasPoint[], tones: BiasTones): BiasFit {
  const problem = new Problem(points, tones);
  const begun = [-1, 1].flatMap((way) =>
    STARTS_DB_PER_TURN.flatMap((size) =>
      STARTS_OFF_DB.map((off) => problem.fit(problem.start(way, size, off), way, FIRST_ROUNDS)),
    ),
  );
  const promising = begun.toSorted((a, b) => a.cost - b.cost).slice(0, GO_ON);
  const fits = promising.map(({ values, way }) => problem.fit(values, way, ROUNDS));
  const sorted = fits.toSorted((a, b) => a.cost - b.cost);
  const [{ cost }] = sorted;
  return {
    cost,
    laws: () => {
      const random = new SeededRandom(SEED);
      return modesOf(sorted).flatMap((mode) => problem.laws(mode, Math.exp((cost - mode.cost) / 2), random));
    },
  };
}

/** Those that differ, and are about as likely as the best. @param fits the best first */
function modesOf(fits: readonly Fit[]): Fit[] {
  const modes: Fit[] = [];
  for (const fit of fits) {
    const known = modes.some(
      (mode) => mode.way === fit.way && mode.values.every((v, i) => Math.abs(v - fit.values[i]) < 0.3),
    );
    if (!known && fit.cost < fits[0].cost + AS_LIKELY) modes.push(fit);
  }
  return modes;
}

interface Fit extends Fitted {
  way: number;
}

/** Places of the parameters: screw, then level, shift and depth of each curve. */
const SIZE = 0;
const OFF = 1;
const OF_CURVE = CURVES.map((_, c) => ({ level: 2 + 3 * c, shift: 3 + 3 * c, depth: 4 + 3 * c }));
const COUNT = 2 + 3 * CURVES.length;

/** Shapes are worked out where they are asked for: those of the tones that are heard are kept for the next time. */
const sensitivityShape = rememberSome(
  (frequencyHz: number) => String(frequencyHz),
  (frequencyHz) => new TabulatedCurve((biasDb) => sensitivityDb(biasDb, frequencyHz)),
);
const THIRD_SHAPE = new TabulatedCurve(thirdDb);

class Problem {
  /** What was measured of each curve. */
  private readonly heard: ReadonlyArray<ReadonlyArray<{ turns: number; db: number }>>;
  private readonly means: number[];
  private readonly shapes: TabulatedCurve[];
  private readonly middleTurns: number;

  constructor(
    private readonly points: readonly BiasPoint[],
    { middleHz, highHz, speedCmPerS }: BiasTones,
  ) {
    this.shapes = [
      sensitivityShape(asAtCassetteSpeed(middleHz, speedCmPerS)),
      sensitivityShape(asAtCassetteSpeed(highHz, speedCmPerS)),
      THIRD_SHAPE,
    ];
    this.heard = CURVES.map((curve) =>
      points.flatMap(({ turns, middleDb, highDb, thirdDb }) => {
        const db = { middle: middleDb, high: highDb, third: thirdDb }[curve];
        return db === null ? [] : [{ turns, db }];
      }),
    );
    this.means = this.heard.map(
      (values) => values.reduce((sum, { db }) => sum + db, 0) / Math.max(1, values.length),
    );
    this.middleTurns = points.reduce((sum, { turns }) => sum + turns, 0) / points.length;
  }

  start(way: number, dbPerTurn: number, offDb: number): number[] {
    const values = new Array<number>(COUNT).fill(0);
    values[SIZE] = Math.log(dbPerTurn / USUAL_DB_PER_TURN) / DB_PER_TURN_SPREAD;
    values[OFF] = offDb / USUAL_OFF_DB;
    const bias = this.bias(values, way);
    CURVES.forEach((_, c) => {
      const shape = this.shapes[c];
      const mean =
        this.points.reduce((sum, { turns }) => sum + shape.at(bias(turns)), 0) / this.points.length;
      values[OF_CURVE[c].level] = -mean / LEVEL_SPREAD_DB;
    });
    return values;
  }

  /** Bias re the recommended one, dB, over turns. All values are in units of what is usual. */
  private bias(values: readonly number[], way: number): (turns: number) => number {
    const off = USUAL_OFF_DB * values[OFF];
    const rate = way * this.dbPerTurn(values);
    return (turns) => off + rate * (turns - this.middleTurns);
  }

  private dbPerTurn(values: readonly number[]): number {
    return USUAL_DB_PER_TURN * Math.exp(DB_PER_TURN_SPREAD * values[SIZE]);
  }

  /** A curve by its shape alone, over bias, dB. */
  private shaped(values: readonly number[], c: number): (biasDb: number) => number {
    const { level, shift, depth } = OF_CURVE[c];
    const levelDb = this.means[c] + LEVEL_SPREAD_DB * values[level];
    const shiftDb = SHIFT_DB[CURVES[c]] * values[shift];
    const deep = Math.exp(DEPTH * values[depth]);
    const shape = this.shapes[c];
    return (biasDb) => levelDb + deep * shape.at(biasDb - shiftDb);
  }

  /** How badly values fit, and how far from usual they are. */
  private cost(values: readonly number[], way: number): number {
    let cost = 0;
    for (const value of values) cost += value * value;
    const bias = this.bias(values, way);
    for (let c = 0; c < CURVES.length; c++) {
      const shaped = this.shaped(values, c);
      const sigma = SIGMA_DB[CURVES[c]];
      for (const { turns, db } of this.heard[c]) cost += ((db - shaped(bias(turns))) / sigma) ** 2;
    }
    return cost;
  }

  private residuals(way: number): Residuals {
    return {
      cost: (values) => this.cost(values, way),
      normalEquations: (values) => this.normalEquations(values, way),
    };
  }

  /** The values that fit best, from a start. */
  fit(start: number[], way: number, rounds: number): Fit {
    return { way, ...fitByDampedSteps(this.residuals(way), start, rounds) };
  }

  /**
   * JᵀJ and Jᵀr of what was measured, each in units of what is believed of it; that the values be usual is in them as one
   * more residual each, the value itself.
   */
  private normalEquations(values: readonly number[], way: number): NormalEquations {
    const squares = new Float64Array(COUNT * COUNT);
    for (let j = 0; j < COUNT; j++) squares[j * COUNT + j] = 1;
    const slope = Float64Array.from(values);
    const bias = this.bias(values, way);
    const rate = way * this.dbPerTurn(values) * DB_PER_TURN_SPREAD;
    CURVES.forEach((curve, c) => {
      const of = OF_CURVE[c];
      const places = [SIZE, OFF, of.level, of.shift, of.depth];
      const shape = this.shapes[c];
      const shaped = this.shaped(values, c);
      const [shiftDb, sigma] = [SHIFT_DB[curve] * values[of.shift], SIGMA_DB[curve]];
      const deep = Math.exp(DEPTH * values[of.depth]);
      for (const { turns, db } of this.heard[c]) {
        const u = bias(turns);
        const misfit = (db - shaped(u)) / sigma;
        const perDb = (deep * shape.slope(u - shiftDb)) / sigma;
        // how the shape moves with each value
        const moves = [
          perDb * rate * (turns - this.middleTurns),
          perDb * USUAL_OFF_DB,
          LEVEL_SPREAD_DB / sigma,
          -perDb * SHIFT_DB[curve],
          (DEPTH * deep * shape.at(u - shiftDb)) / sigma,
        ];
        for (let p = 0; p < places.length; p++) {
          slope[places[p]] -= moves[p] * misfit;
          for (let q = 0; q < places.length; q++)
            squares[places[p] * COUNT + places[q]] += moves[p] * moves[q];
        }
      }
    });
    return { squares, slope };
  }

  /** The law of a fit, and others that are about as likely. */
  laws(fit: Fit, weight: number, random: SeededRandom): BiasLaw[] {
    const likely = likelyValues(this.residuals(fit.way), fit, random);
    return likely.map((values) => ({ weight, ...this.law(values, fit.way) }));
  }

  private law(values: number[], way: number): Omit<BiasLaw, "weight"> {
    const [middleDb, highDb, thirdDb] = CURVES.map((_, c) => this.throughPoints(values, way, c));
    return { dbPerTurn: way * this.dbPerTurn(values), middleDb, highDb, thirdDb };
  }

  private throughPoints(values: number[], way: number, c: number): (turns: number) => number {
    const curve = CURVES[c];
    const bias = this.bias(values, way);
    const through = curveThroughPoints(
      this.shaped(values, c),
      this.heard[c].map(({ turns, db }) => ({ x: bias(turns), y: db })),
      { stray: STRAY_DB[curve], length: STRAY_LENGTH_DB, measured: MEASURED_DB[curve] },
    );
    return (turns) => through(bias(turns));
  }
}
