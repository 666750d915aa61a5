import { SeededRandom } from "@/core/dsp/seeded-random";
import { asAtCassetteSpeed } from "@/core/standards/bias-curves";
import { sensitivityDb, thirdDb } from "./bias-curves";
import { CurveModel, type CurveBelief } from "./curve-model";
import { rememberSome } from "./remember-some";
import { TabulatedCurve } from "./tabulated-curve";

/** Playback minus input at one setting of the bias screw, dB. */
export interface BiasPoint {
  turns: number;
  /** A middle and a high tone, 20 dB down. */
  middleDb: number;
  highDb: number;
  /** Third harmonic of a middle tone at 0 level re the tone; null where noise hides it. */
  thirdDb: number | null;
}

/** At how many settings of its screw bias was measured. */
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

/** What is modelled: the high tone by how far it is above the middle one, which a change of level between passes leaves alone. */
const BIAS_CURVES = ["middle", "highOverMiddle", "third"] as const;
type BiasCurve = (typeof BIAS_CURVES)[number];

/**
 * What is believed of each curve before anything is measured: its typical shape, and by how much another tape's differs from
 * it. The figures cover recorders of several make-ups (see the coverage table of the bench), not just tapes like the typical one.
 */
const BELIEFS: Record<BiasCurve, CurveBelief> = {
  middle: {
    levelDb: 12,
    levelAround: "measured",
    shiftDb: 0.8,
    depth: 0.3,
    width: 0.25,
    strayDb: 0.25,
    lengthDb: 4.5,
    noiseDb: 0.03,
  },
  highOverMiddle: {
    levelDb: 2.5,
    levelAround: "typical",
    shiftDb: 1,
    depth: 0.3,
    width: 0.3,
    strayDb: 0.5,
    lengthDb: 4.5,
    noiseDb: 0.04,
  },
  third: {
    levelDb: 5,
    levelAround: "typical",
    shiftDb: 1.2,
    depth: 0.4,
    width: 0.3,
    strayDb: 1.6,
    lengthDb: 4,
    noiseDb: 0.25,
  },
};
/** Of the screw: usual bias per turn, and how far its middle usually is from the recommended bias. */
const USUAL_DB_PER_TURN = 8;
const DB_PER_TURN_SPREAD = 1;
const USUAL_OFF_DB = 3.5;

/** Screws are tried at so many effects and offsets, and again between the promising ones. */
const SIZES = Array.from({ length: 12 }, (_, i) => -2 + (4 * i) / 11);
const OFFS = Array.from({ length: 17 }, (_, i) => -2.4 + (4.8 * i) / 16);
const REFINEMENTS = 2;
/** Where so many are left, the grid is fine enough for what the points leave open. */
const ENOUGH = 50;
const DRAWS = 44;
/** Of twice the logarithm of the likelihood: what fits worse is not counted. */
const AS_LIKELY = 10;
const SEED = 31;

/** Which way a screw raises bias: decided when the other direction is less likely than this. */
const UNDECIDED_SHARE = 0.004;

/** What fits points best, before anything is drawn from it. */
export interface BiasFit {
  /** How badly the best fit does; twice the negative logarithm of a likelihood, comparable between fits of as many points. */
  cost: number;
  /** Share of the likelihood that clockwise raises bias. */
  clockwiseShare: number;
  /** How far each point is from what all the others make of it, in standard deviations of that; the largest of each point. */
  leftOut: number[];
  /** Sum of squares of all residuals in units of what is believed of them, and how many there are. */
  residuals: { chiSquare: number; count: number };
  /** The likeliest law first, all in the direction that is likelier. */
  laws(): BiasLaw[];
}

/** A point of a healthy recorder is off from what the others give by no more than this, in standard deviations; and all of them together. */
const MOST_LEFT_OUT = 3.1;
const MOST_RESIDUALS = 6.5;
/** Of the residuals of one point the level and the shape take so much, as found with recorders of several make-ups. */
const USUAL_CHI_SQUARE = 0.75;

/** Whether no one law gives such points. */
export const isMisfit = ({ leftOut, residuals: { chiSquare, count } }: BiasFit): boolean =>
  Math.max(...leftOut) > MOST_LEFT_OUT ||
  chiSquare - USUAL_CHI_SQUARE * count > MOST_RESIDUALS * Math.sqrt(USUAL_CHI_SQUARE * Math.max(1, count));

/** Whether the points decide in which direction the screw raises bias. */
export const isDirectionDecided = ({ clockwiseShare }: Pick<BiasFit, "clockwiseShare">): boolean =>
  Math.min(clockwiseShare, 1 - clockwiseShare) < UNDECIDED_SHARE;

/**
 * How bias acts over the turns of its screw: the levels of a middle and a high tone and the third harmonic. What is measured
 * decides between the settings; their typical shapes decide outside, by as much as tapes differ from them. One setting
 * alone gives about how far bias is off by what is usual, and nothing of what the screw does.
 */
export const biasLaws = (points: readonly BiasPoint[], tones: BiasTones): BiasLaw[] =>
  points.length === 0 ? [] : fitBias(points, tones).laws();

/** A screw that may be: its direction, effect and offset in units of what is usual, and how badly the points fit it. */
interface Candidate {
  way: 1 | -1;
  size: number;
  off: number;
  /** Steps of the grid that it stands for. */
  sizeStep: number;
  offStep: number;
  cost: number;
}

/**
 * The fit that those laws are drawn from: each curve a Gaussian process around its typical shape (Rasmussen and Williams
 * 2006, ch. 2), its likelihood summed over the screws that may be; laws are drawn path by path (Wilson et al. 2020).
 * @param points one at least
 * @param beside points of the other channel of the same screw, which help to decide its direction
 */
export function fitBias(
  points: readonly BiasPoint[],
  tones: BiasTones,
  beside: readonly BiasPoint[] = [],
): BiasFit {
  const problem = new Problem(points, tones);
  const candidates = problem.candidates();
  const best = candidates.reduce((one, other) => (other.cost < one.cost ? other : one));
  const shareOf = (list: readonly Candidate[]) => {
    const least = Math.min(...list.map(({ cost }) => cost));
    const [clockwise, anticlockwise] = [1, -1].map((way) =>
      list.reduce((sum, one) => sum + (one.way === way ? likelihood(one, least) : 0), 0),
    );
    return clockwise / (clockwise + anticlockwise);
  };
  const own = shareOf(candidates);
  const other = beside.length === 0 ? 0.5 : shareOf(new Problem(beside, tones).candidates());
  const clockwiseShare = (own * other) / (own * other + (1 - own) * (1 - other));
  const way = clockwiseShare >= 0.5 ? 1 : -1;
  return {
    cost: best.cost,
    clockwiseShare,
    leftOut: problem.leftOut(best),
    residuals: problem.residuals(best),
    laws: () => problem.laws(candidates.filter((one) => one.way === way)),
  };
}

const likelihood = ({ cost, sizeStep, offStep }: Candidate, least: number): number =>
  Math.exp((least - cost) / 2) * sizeStep * offStep;

const THIRD_SHAPE = new TabulatedCurve(thirdDb);
/** Shapes are worked out where they are asked for: those of the tones that are measured are kept for the next time. */
const shapesOf = rememberSome(
  ({ middleHz, highHz, speedCmPerS }: BiasTones) => [middleHz, highHz, speedCmPerS].join(),
  ({ middleHz, highHz, speedCmPerS }): Record<BiasCurve, TabulatedCurve> => {
    const at = (hz: number) => (biasDb: number) => sensitivityDb(biasDb, asAtCassetteSpeed(hz, speedCmPerS));
    const [middle, high] = [at(middleHz), at(highHz)];
    return {
      middle: new TabulatedCurve(middle),
      highOverMiddle: new TabulatedCurve((biasDb) => high(biasDb) - middle(biasDb)),
      third: THIRD_SHAPE,
    };
  },
);

function measured(curve: BiasCurve, { middleDb, highDb, thirdDb: third }: BiasPoint): number | null {
  switch (curve) {
    case "middle":
      return middleDb;
    case "highOverMiddle":
      return highDb - middleDb;
    case "third":
      return third;
  }
}

class Problem {
  private readonly turns: number[];
  private readonly models: CurveModel[];
  private readonly middleTurns: number;

  constructor(
    private readonly points: readonly BiasPoint[],
    tones: BiasTones,
  ) {
    const shapes = shapesOf(tones);
    this.turns = points.map(({ turns }) => turns);
    this.middleTurns = this.turns.reduce((sum, turns) => sum + turns, 0) / points.length;
    this.models = BIAS_CURVES.map(
      (curve) =>
        new CurveModel(
          shapes[curve],
          BELIEFS[curve],
          points.map((point) => measured(curve, point)),
        ),
    );
  }

  /** Screws that may be, those that are as good as impossible left out. */
  candidates(): Candidate[] {
    const [sizeStep, offStep] = [SIZES[1] - SIZES[0], OFFS[1] - OFFS[0]];
    let list = ([1, -1] as const).flatMap((way) =>
      SIZES.flatMap((size) => OFFS.map((off) => this.candidate({ way, size, off, sizeStep, offStep }))),
    );
    for (let round = 0; round < REFINEMENTS; round++) {
      const limit = Math.min(...list.map(({ cost }) => cost)) + AS_LIKELY;
      const likely = list.filter(({ cost }) => cost <= limit);
      if (likely.length > ENOUGH) return likely;
      list = likely.flatMap((one) => {
        const [third, other] = [one.sizeStep / 3, one.offStep / 3];
        return [-1, 0, 1].flatMap((i) =>
          [-1, 0, 1].map((j) =>
            this.candidate({
              way: one.way,
              size: one.size + i * third,
              off: one.off + j * other,
              sizeStep: third,
              offStep: other,
            }),
          ),
        );
      });
    }
    return list;
  }

  private candidate(one: Omit<Candidate, "cost">): Candidate {
    const at = this.biases(one);
    let cost = one.size ** 2 + one.off ** 2;
    for (const model of this.models) cost += model.cost(at);
    return { ...one, cost };
  }

  private biases(one: Pick<Candidate, "way" | "size" | "off">): number[] {
    return this.turns.map(this.bias(one));
  }

  /** Bias re the recommended one, dB, over turns. */
  private bias({ way, size, off }: Pick<Candidate, "way" | "size" | "off">): (turns: number) => number {
    const rate = way * dbPerTurn(size);
    return (turns) => USUAL_OFF_DB * off + rate * (turns - this.middleTurns);
  }

  residuals(best: Candidate): BiasFit["residuals"] {
    const at = this.biases(best);
    const chiSquare = this.models.reduce(
      (sum, model) => sum + model.chiSquare(at),
      best.size ** 2 + best.off ** 2,
    );
    return { chiSquare, count: this.models.reduce((sum, { count }) => sum + count, 0) };
  }

  leftOut(best: Candidate): number[] {
    const at = this.biases(best);
    const each = this.models.map((model) => model.leftOut(at));
    return this.points.map((_, i) => Math.max(...each.map((one) => Math.abs(one[i]))));
  }

  /** The law of the best candidate, and others drawn from all of them. @param candidates of one direction, one at least */
  laws(candidates: readonly Candidate[]): BiasLaw[] {
    const random = new SeededRandom(SEED);
    const best = candidates.reduce((one, other) => (other.cost < one.cost ? other : one));
    const weights = candidates.map((one) => likelihood(one, best.cost));
    const total = weights.reduce((a, b) => a + b, 0);
    const laws = [this.law(best, null)];
    let [at, passed] = [0, weights[0]];
    for (let i = 0; i < DRAWS; i++) {
      const wanted = ((i + random.uniform()) / DRAWS) * total;
      while (passed < wanted && at < candidates.length - 1) passed += weights[++at];
      const one = candidates[at];
      const drawn = {
        ...one,
        size: one.size + (random.uniform() - 0.5) * one.sizeStep,
        off: one.off + (random.uniform() - 0.5) * one.offStep,
      };
      laws.push(this.law(drawn, random));
    }
    return laws;
  }

  /** @param random null for the likeliest curves */
  private law(one: Candidate, random: SeededRandom | null): BiasLaw {
    const bias = this.bias(one);
    const at = this.turns.map(bias);
    const [middle, highOverMiddle, third] = this.models.map((model) => model.curve(at, random));
    return {
      weight: 1,
      dbPerTurn: one.way * dbPerTurn(one.size),
      middleDb: (turns) => middle(bias(turns)),
      highDb: (turns) => middle(bias(turns)) + highOverMiddle(bias(turns)),
      thirdDb: (turns) => third(bias(turns)),
    };
  }
}

const dbPerTurn = (size: number): number => USUAL_DB_PER_TURN * Math.exp(DB_PER_TURN_SPREAD * size);
