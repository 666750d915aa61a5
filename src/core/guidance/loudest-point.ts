import { amplitudeDb } from "@/core/dsp/decibels";
import { inForce } from "@/core/records/job-records";
import type { Adjustment } from "@/core/records/adjustment";
import type { Reading } from "@/core/records/reading";
import { spindleMoves } from "./slack-model";

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
const GOOD_ENOUGH_DB = 0.1;
/** Levels from so many places, none of them down in a null, tell a hill. */
const FEWEST_PLACES = 3;
const TELLS_WITHIN_DB = 12;
const LONGEST_STEP = 0.5;
/** When the best guess is to stay but too much may still be lost, so far to one side tells more. */
const EXPLORE_TURNS = 0.06;
/** So sure it has to be on which side of the top the screw stands, before it is said. */
const SURE = 0.9;

/**
 * Where to turn an azimuth screw by the level of a treble tone alone. Every hill that the azimuth loss
 * 20·log₁₀|sinc((x − x₀)/a)| can make over turns x of the spindle, for screws without and with slack, is weighed by how
 * well it explains the levels; the screw goes where the least is expected to be lost.
 */
export function advisePeak(points: ScrewLevel[]): PeakAdvice {
  const none = { side: null, gainDb: null, peakTurns: null };
  const placesOf = (some: ScrewLevel[]) => new Set(some.map(({ turns }) => turns.toFixed(3))).size;
  if (placesOf(points) < 2) return { kind: "trial", turns: TRIAL_TURNS, ...none };
  const hills = likelyHills(points);
  const lossAt = (off: number) =>
    hills.reduce((sum, { weight, toGo, width }) => sum - weight * sincDb((off - toGo) / width), 0);
  const here = lossAt(0);
  const [target, least] = lowest(lossAt, hills);
  const gainDb = here - least;
  const before = points.at(-1)!.turns - points.at(-2)!.turns;
  const clockwise = hills.reduce((sum, { weight, toGo }) => sum + (toGo > 0 ? weight : 0), 0);
  const way = Math.sign(Math.abs(clockwise - 0.5) > 0.1 ? clockwise - 0.5 : before || 1);
  const side = Math.max(clockwise, 1 - clockwise) < SURE ? null : clockwise > 0.5 ? "before" : "past";
  const known = { gainDb, peakTurns: points.at(-1)!.turns + slotTurns(hills, target) };
  const highest = Math.max(...points.map(({ levelDb }) => levelDb));
  const louder = highest - points.at(-1)!.levelDb;
  const seen = placesOf(points.filter(({ levelDb }) => levelDb > highest - TELLS_WITHIN_DB));
  if (gainDb <= GOOD_ENOUGH_DB)
    return seen >= FEWEST_PLACES && Math.max(here, louder) <= 3 * GOOD_ENOUGH_DB
      ? { kind: "leave", turns: 0, side: "on it", ...known }
      : { kind: "turn", turns: slotTurns(hills, way * EXPLORE_TURNS), side, gainDb: null, peakTurns: null };
  const turns = Math.max(-LONGEST_STEP, Math.min(LONGEST_STEP, slotTurns(hills, target)));
  return { kind: "turn", turns, side, ...(side === null ? { gainDb: null, peakTurns: null } : known) };
}

interface Hill {
  weight: number;
  /** Turns of the spindle from where it stands now to the top, clockwise positive. */
  toGo: number;
  /** From the top to the first null. */
  width: number;
  /** Turns of the slot that are lost now before the spindle moves. */
  toTakeUp: { clockwise: number; anticlockwise: number };
}

/** Turns to the first null that screws have. */
const WIDTHS = Array.from({ length: 32 }, (_, i) => 0.12 * 1.08 ** i);
const SLACKS = [0, 0.015, 0.03, 0.045, 0.06, 0.08, 0.1, 0.12];
const TOP_STEP = 0.015;
const BEYOND = 0.6;
/** What a level wanders by; far down the hill it is steep, and a hand that turned a little more makes more of it. */
const WANDER_DB = 0.06;
const STEEPER = 0.004;
/** Hills so much less likely than the best (in χ²) are forgotten. */
const FORGOTTEN = 16;
/** The loudest point that was seen stands on the hill itself, not on one of the lower ones beside it: share of its width. */
const ON_THE_HILL = 0.9;

function likelyHills(points: ScrewLevel[]): Hill[] {
  const turned = points.slice(1).map(({ turns }, i) => ({ turns: turns - points[i].turns }));
  const loudest = points.reduce((best, { levelDb }, i) => (levelDb > points[best].levelDb ? i : best), 0);
  const levels = points.map(({ levelDb }) => Math.max(levelDb, points[loudest].levelDb + DEEPEST_DB));
  const hills: Array<Hill & { cost: number }> = [];
  for (const slack of SLACKS)
    for (const share of slack === 0 ? [0] : [0, 0.5, 1]) {
      const { moves, lag } = spindleMoves(turned, slack, share * slack);
      const at = [0];
      for (const move of moves) at.push(at.at(-1)! + move);
      const toTakeUp = { clockwise: lag, anticlockwise: slack - lag };
      const [first, last] = [Math.min(...at) - BEYOND, Math.max(...at) + BEYOND];
      for (const width of WIDTHS)
        for (let top = first; top <= last; top += TOP_STEP) {
          if (Math.abs(at[loudest] - top) > ON_THE_HILL * width) continue;
          const cost = misfit(levels, at, top, width);
          hills.push({
            cost,
            weight: share === 0.5 || slack === 0 ? 1 : 0.5,
            toGo: top - at.at(-1)!,
            width,
            toTakeUp,
          });
        }
    }
  const least = hills.reduce((min, { cost }) => Math.min(min, cost), Infinity);
  const likely = hills.filter(({ cost }) => cost < least + FORGOTTEN);
  const weights = likely.map(({ cost, weight }) => weight * Math.exp((least - cost) / 2));
  const total = weights.reduce((a, b) => a + b, 0);
  return likely.map(({ toGo, width, toTakeUp }, i) => ({
    weight: weights[i] / total,
    toGo,
    width,
    toTakeUp,
  }));
}

const SMALLEST_PRODUCT = 1e-200;

/** χ² of the levels with the spindle at those places, for a hill as high as fits best. */
function misfit(levels: number[], at: number[], top: number, width: number): number {
  // Σ w·(rest − height)² with the height that makes it least is Σ w·rest² − (Σ w·rest)² ÷ Σ w
  let [total, sum, squares, spread, logs] = [0, 0, 0, 1, 0];
  for (let i = 0; i < levels.length; i++) {
    const loss = sincDb((at[i] - top) / width);
    const variance = WANDER_DB ** 2 + (STEEPER * loss * loss) ** 2;
    const rest = levels[i] - loss;
    total += 1 / variance;
    sum += rest / variance;
    squares += (rest * rest) / variance;
    spread *= variance;
    if (spread > SMALLEST_PRODUCT) continue;
    // before there are so many that it comes to nought
    logs += Math.log(spread);
    spread = 1;
  }
  return squares - (sum * sum) / total + logs + Math.log(spread);
}

/** Where the least is expected to be lost, in turns of the spindle from here, and how much. */
function lowest(lossAt: (off: number) => number, hills: Hill[]): [number, number] {
  const [first, last] = [
    Math.min(...hills.map(({ toGo }) => toGo)),
    Math.max(...hills.map(({ toGo }) => toGo)),
  ];
  const step = Math.max(TOP_STEP / 3, (last - first) / 60);
  let best: [number, number] = [0, lossAt(0)];
  for (let off = first; off <= last + step / 2; off += step) {
    const loss = lossAt(off);
    if (loss < best[1]) best = [off, loss];
  }
  return best;
}

/** How far the slot has to be turned for that, its slack taken up as it is likely to be. */
function slotTurns(hills: Hill[], spindleTurns: number): number {
  const lost = hills.reduce(
    (sum, { weight, toTakeUp }) =>
      sum + weight * (spindleTurns > 0 ? toTakeUp.clockwise : -toTakeUp.anticlockwise),
    0,
  );
  return spindleTurns === 0 ? 0 : spindleTurns + lost;
}

/** Nulls are filled in by everything that is not ideal. */
const DEEPEST_DB = -28;
const sincDb = (x: number): number =>
  x === 0 ? 0 : Math.max(DEEPEST_DB, amplitudeDb(Math.abs(Math.sin(Math.PI * x) / (Math.PI * x)) + 1e-9));

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
