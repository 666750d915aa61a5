import { Matrix, solve } from "ml-matrix";
import { inForce, type Adjustment, type Reading } from "./records";

/** Level of the treble tone with the screw so many turns clockwise from where it was first. */
export interface ScrewLevel {
  turns: number;
  levelDb: number;
}

export interface PeakAdvice {
  kind: "trial" | "turn" | "leave";
  /** Clockwise positive; 0 when it is to be left. */
  turns: number;
  /** Which side of the loudest point the screw stands on; null while that is not known. */
  side: "before" | "past" | "on it" | null;
  /** What there is to gain, dB; null while the peak is not fitted. */
  gainDb: number | null;
  /** Turns where it is loudest; null while it is not fitted. */
  peakTurns: number | null;
}

const TRIAL_TURNS = 0.125;
/** Level differences below this are wander. */
const TELLS_DB = 0.15;
const GOOD_ENOUGH_DB = 0.1;
/** Points so far below the highest are beyond where a parabola holds. */
const REACH_DB = 8;
const LONGEST_STEP = 0.5;

/**
 * Where to turn an azimuth screw by the level of a treble tone alone. Near its top the azimuth loss is a parabola, so
 * three points tell the top; with fewer, the screw goes on the way that became louder.
 */
export function advisePeak(points: ScrewLevel[]): PeakAdvice {
  const last = points.at(-1);
  const unknown = (kind: PeakAdvice["kind"], turns: number): PeakAdvice => ({
    kind,
    turns,
    side: null,
    gainDb: null,
    peakTurns: null,
  });
  if (!last || points.length < 2) return unknown("trial", TRIAL_TURNS);
  const top = parabolaTop(points);
  if (top) {
    const turns = top.turns - last.turns;
    const gainDb = Math.max(0, top.levelDb - last.levelDb);
    const near = gainDb <= GOOD_ENOUGH_DB;
    return {
      kind: near ? "leave" : "turn",
      turns: near ? 0 : Math.max(-LONGEST_STEP, Math.min(LONGEST_STEP, turns)),
      side: near ? "on it" : turns > 0 ? "before" : "past",
      gainDb,
      peakTurns: top.turns,
    };
  }
  const best = points.reduce((a, b) => (b.levelDb > a.levelDb ? b : a));
  if (best !== last && best.levelDb - last.levelDb > TELLS_DB) {
    // it became quieter: back, and as far again to the other side of the best
    const back = best.turns - last.turns;
    return unknown("turn", Math.sign(back) * Math.min(LONGEST_STEP, 2 * Math.abs(back)));
  }
  const before = points.at(-2)!;
  const way = last.turns - before.turns || TRIAL_TURNS;
  return unknown("turn", Math.sign(way) * Math.min(LONGEST_STEP, 1.5 * Math.abs(way)));
}

/** Top of the parabola through the points near the highest, by least squares; null when they make none. */
function parabolaTop(points: ScrewLevel[]): ScrewLevel | null {
  const highest = Math.max(...points.map(({ levelDb }) => levelDb));
  const near = points.filter(({ levelDb }) => levelDb > highest - REACH_DB);
  const places = new Set(near.map(({ turns }) => turns.toFixed(3)));
  if (places.size < 3) return null;
  const [c, b, a] = solve(
    new Matrix(near.map(({ turns: x }) => [1, x, x * x])),
    Matrix.columnVector(near.map(({ levelDb }) => levelDb)),
    true,
  ).to1DArray();
  const span = Math.max(...near.map(({ turns }) => turns)) - Math.min(...near.map(({ turns }) => turns));
  // flat within what a level wanders by
  if (!(a < 0) || -a * (span / 2) ** 2 < TELLS_DB / 2) return null;
  const turns = -b / (2 * a);
  return { turns, levelDb: c + b * turns + a * turns * turns };
}

/** The points of a search, from the levels logged on either side of its turns. */
export function screwLevels(
  readings: Reading[],
  adjustments: Adjustment[],
  adjusterId: string,
): ScrewLevel[] {
  const turned = inForce(adjustments).filter((a) => a.adjusterId === adjusterId && a.turns);
  const levels = inForce(readings).filter(({ quantity }) => quantity === "azimuth.treble");
  const placeAt = (at: string) =>
    turned.filter((turn) => turn.at <= at).reduce((sum, { turns }) => sum + turns!, 0);
  return levels.map(({ at, value }) => ({ turns: placeAt(at), levelDb: value }));
}
