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
const LONGEST_STEP = 0.5;
/** A point counts as the other side of the top from so far beyond it. */
const BRACKET_TURNS = 0.015;
const BRACKET_STEP = 0.06;

/**
 * Where to turn an azimuth screw by the level of a treble tone alone. Three points tell
 * the hill that the azimuth loss makes; with fewer, the screw goes on the way that became louder.
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
  const top = hillTop(points);
  if (top) {
    const turns = top.turns - last.turns;
    const gainDb = Math.max(0, top.levelDb - last.levelDb);
    const near = gainDb <= GOOD_ENOUGH_DB;
    const passed = (way: number) => points.some((point) => way * (point.turns - top.turns) > BRACKET_TURNS);
    // a top that was not passed yet may lie farther on
    const beyond = passed(1) ? (passed(-1) ? 0 : -1) : 1;
    if (near && beyond !== 0)
      return { kind: "turn", turns: beyond * BRACKET_STEP, side: "before", gainDb, peakTurns: top.turns };
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

/**
 * Top of the hill through the points: the azimuth loss 20·log₁₀|sinc((x − x₀)/a)| over turns x, by least squares over
 * where its top x₀ is, how many turns a it is wide to its first null, and how high; null when the points make none.
 */
function hillTop(points: ScrewLevel[]): ScrewLevel | null {
  const turns = points.map((point) => point.turns);
  if (new Set(turns.map((t) => t.toFixed(3))).size < 3) return null;
  const [first, last] = [Math.min(...turns), Math.max(...turns)];
  const levels = points.map(({ levelDb }) => levelDb);
  // flat within what a level wanders by
  if (Math.max(...levels) - Math.min(...levels) < TELLS_DB) return null;
  let best = { cost: Infinity, turns: 0, levelDb: 0 };
  for (const width of WIDTHS)
    for (let top = first - BEYOND; top <= last + BEYOND; top += STEP) {
      const loss = turns.map((t) => sincDb((t - top) / width));
      const levelDb = levels.reduce((sum, level, i) => sum + level - loss[i], 0) / levels.length;
      const cost = levels.reduce((sum, level, i) => sum + (level - levelDb - loss[i]) ** 2, 0);
      if (cost < best.cost) best = { cost, turns: top, levelDb };
    }
  return best;
}

const STEP = 0.01;
const BEYOND = 0.6;
/** Turns from the top to the first null that screws have, in steps of a twentieth. */
const WIDTHS = Array.from({ length: 52 }, (_, i) => 0.12 * 1.05 ** i);
/** Nulls are filled in by everything that is not ideal. */
const DEEPEST_DB = -35;
const sincDb = (x: number): number =>
  x === 0 ? 0 : Math.max(DEEPEST_DB, 20 * Math.log10(Math.abs(Math.sin(Math.PI * x) / (Math.PI * x)) + 1e-9));

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
