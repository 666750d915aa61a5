import { intoTriangle, solveLower, solveUpper } from "@/core/dsp/cholesky";
import type { SeededRandom } from "@/core/dsp/seeded-random";
import type { TabulatedCurve } from "./tabulated-curve";

/** By how much a curve over bias may differ from its typical shape; standard deviations. */
export interface CurveBelief {
  /** Of its level, dB: around the typical one, or around whatever is measured where nothing is usual. */
  levelDb: number;
  levelAround: "typical" | "measured";
  /** Along the bias axis, dB. */
  shiftDb: number;
  /** Of its height and its width, as shares. */
  depth: number;
  width: number;
  /** Otherwise, dB, near the recommended bias, and over how much bias that is correlated, dB. */
  strayDb: number;
  lengthDb: number;
  /** Of one measured point, dB. */
  noiseDb: number;
}

/** Beyond these biases tapes differ more: by so much of what they usually do, for each dB. */
const USUAL_BIAS_DB = { from: -2, to: 5 };
const STRAY_PER_DB = 0.5;
/** A stray curve is made of so many waves. */
const WAVES = 20;

/** The typical shape at a bias, dB, and by how much a curve may differ from it there: by each parameter, and by straying. */
interface Terms {
  biasDb: number;
  shapeDb: number;
  shift: number;
  depth: number;
  width: number;
  stray: number;
}

/**
 * A curve over bias that was measured at some settings: a Gaussian process around a typical shape (Rasmussen and Williams
 * 2006). Level, shift, height and width of the shape are unknown, and a smooth stray curve is added.
 */
export class CurveModel {
  private readonly indices: number[];
  private readonly levels: number[];
  private readonly meanDb: number;

  /** @param measuredDb a level for each setting; null where it could not be measured */
  constructor(
    private readonly shape: TabulatedCurve,
    private readonly belief: CurveBelief,
    measuredDb: ReadonlyArray<number | null>,
  ) {
    this.indices = measuredDb.flatMap((db, i) => (db === null ? [] : [i]));
    this.levels = measuredDb.flatMap((db) => (db === null ? [] : [db]));
    const mean = this.levels.reduce((sum, db) => sum + db, 0) / Math.max(1, this.levels.length);
    this.meanDb = belief.levelAround === "measured" ? mean : 0;
  }

  /** How many settings it was measured at. */
  get count(): number {
    return this.levels.length;
  }

  /** Twice the negative logarithm of the likelihood of what was measured, with the settings at these biases, dB. */
  cost(biasesDb: readonly number[]): number {
    const n = this.levels.length;
    if (n === 0) return 0;
    const at = this.own(biasesDb);
    const { triangle, rest } = this.solved(at);
    let cost = 0;
    for (let i = 0; i < n; i++) cost += rest[i] ** 2 + 2 * Math.log(triangle[i * n + i]);
    return cost;
  }

  /** Sum of squares of what is left of the levels in units of what is believed: about as many as there are points. */
  chiSquare(biasesDb: readonly number[]): number {
    if (this.levels.length === 0) return 0;
    return this.solved(this.own(biasesDb)).rest.reduce((sum, v) => sum + v * v, 0);
  }

  /**
   * What each point is off from what the others make of it, in standard deviations (Rasmussen and Williams 2006, 5.4.2); 0
   * where it was not measured.
   */
  leftOut(biasesDb: readonly number[]): number[] {
    const n = this.levels.length;
    const all = new Array<number>(biasesDb.length).fill(0);
    if (n < 2) return all;
    const at = this.own(biasesDb);
    const { triangle, rest } = this.solved(at);
    solveUpper(triangle, rest);
    for (let i = 0; i < n; i++) {
      const column = new Float64Array(n);
      column[i] = 1;
      solveLower(triangle, column);
      const variance = column.reduce((sum, v) => sum + v * v, 0);
      all[this.indices[i]] = rest[i] / Math.sqrt(variance);
    }
    return all;
  }

  /** The likeliest curve over bias, or one that is drawn from all that are likely. */
  curve(biasesDb: readonly number[], random: SeededRandom | null): (biasDb: number) => number {
    const at = this.own(biasesDb);
    const drawn = random ? this.drawn(random) : ({ shapeDb }: Terms) => this.meanDb + shapeDb;
    const n = at.length;
    if (n === 0) return (biasDb) => drawn(this.terms(biasDb));
    const triangle = this.covariance(at);
    const terms = at.map((u) => this.terms(u));
    const weights = Float64Array.from(
      terms,
      (own, i) => this.levels[i] - drawn(own) - (random ? this.belief.noiseDb * random.normal() : 0),
    );
    solveLower(triangle, weights);
    solveUpper(triangle, weights);
    return (biasDb) => {
      const own = this.terms(biasDb);
      let y = drawn(own);
      for (let i = 0; i < n; i++) y += weights[i] * this.alike(own, terms[i]);
      return y;
    };
  }

  private own(biasesDb: readonly number[]): number[] {
    return this.indices.map((i) => biasesDb[i]);
  }

  /** L of the covariance, and what is left of the levels without the shape, divided by it. */
  private solved(at: readonly number[]) {
    const triangle = this.covariance(at);
    const rest = Float64Array.from(at, (u, i) => this.levels[i] - this.meanDb - this.shape.at(u));
    solveLower(triangle, rest);
    return { triangle, rest };
  }

  private covariance(at: readonly number[]): Float64Array {
    const n = at.length;
    const terms = at.map((u) => this.terms(u));
    const matrix = new Float64Array(n * n);
    for (let i = 0; i < n; i++)
      for (let j = 0; j <= i; j++)
        matrix[i * n + j] = this.alike(terms[i], terms[j]) + (i === j ? this.belief.noiseDb ** 2 : 0);
    intoTriangle(matrix, n);
    return matrix;
  }

  private terms(biasDb: number): Terms {
    const { shiftDb, depth, width, strayDb } = this.belief;
    const slope = this.shape.slope(biasDb);
    const shapeDb = this.shape.at(biasDb);
    return {
      biasDb,
      shapeDb,
      shift: shiftDb * slope,
      depth: depth * shapeDb,
      width: width * biasDb * slope,
      stray: strayDb * (1 + STRAY_PER_DB * beyondUsual(biasDb)),
    };
  }

  private alike(a: Terms, b: Terms): number {
    const apart = (Math.sqrt(3) * Math.abs(a.biasDb - b.biasDb)) / this.belief.lengthDb;
    return (
      this.belief.levelDb ** 2 +
      a.shift * b.shift +
      a.depth * b.depth +
      a.width * b.width +
      a.stray * b.stray * (1 + apart) * Math.exp(-apart)
    );
  }

  /** A curve drawn before anything is measured; its stray part by random waves (Rahimi and Recht 2007). */
  private drawn(random: SeededRandom): (own: Terms) => number {
    const [level, shift, depth, width] = [0, 0, 0, 0].map(() => random.normal());
    const waves = Array.from({ length: WAVES }, () => ({
      rate: student(random) / this.belief.lengthDb,
      phase: 2 * Math.PI * random.uniform(),
      weight: Math.sqrt(2 / WAVES) * random.normal(),
    }));
    return (own) => {
      let stray = 0;
      for (const wave of waves) stray += wave.weight * Math.cos(wave.rate * own.biasDb + wave.phase);
      return (
        this.meanDb +
        own.shapeDb +
        this.belief.levelDb * level +
        shift * own.shift +
        depth * own.depth +
        width * own.width +
        stray * own.stray
      );
    };
  }
}

const beyondUsual = (biasDb: number): number =>
  Math.max(0, USUAL_BIAS_DB.from - biasDb, biasDb - USUAL_BIAS_DB.to);

/** Student's t of three degrees of freedom: how the rates of a Matérn curve of order 3/2 are distributed. */
function student(random: SeededRandom): number {
  const [a, b, c] = [0, 0, 0].map(() => random.normal() ** 2);
  return random.normal() / Math.sqrt((a + b + c) / 3);
}
