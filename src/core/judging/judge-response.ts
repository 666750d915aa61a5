import type { ResponsePoint } from "@/core/measure/response";
import type { Corridor } from "@/core/standards/tolerance-classes";
import { verdictOf, type Verdict } from "./verdict";

type Point = Pick<ResponsePoint, "frequencyHz" | "levelDb" | "uncertaintyDb">;

export interface JudgedResponse<P extends Point> {
  /** The points with what each is worth: null outside the corridor's frequencies. */
  points: Array<{ point: P; verdict: Verdict | null }>;
  /** The one that is farthest off inside the corridor; null when none is inside. */
  worst: P | null;
  verdict: Verdict | null;
  /** Where an equaliser is set: the point inside the corridor that is nearest to 10 kHz, 4 kHz at least. */
  treble: P | null;
}

const TREBLE_HZ = 10_000;
const LOWEST_TREBLE_HZ = 3900;
/** Bands are named by round figures. */
const NAMED_WITHIN = 1.01;

/** Each point of a response against the corridor of its machine. */
export function judgeResponse<P extends Point>(
  points: P[],
  { db, fromHz, toHz }: Corridor,
): JudgedResponse<P> {
  const inside = points.filter(
    ({ frequencyHz }) => frequencyHz >= fromHz / NAMED_WITHIN && frequencyHz <= toHz * NAMED_WITHIN,
  );
  const judged = points.map((point) => ({
    point,
    verdict: inside.includes(point) ? verdictOf(point.levelDb, point.uncertaintyDb, db) : null,
  }));
  const verdicts = judged.map(({ verdict }) => verdict);
  const off = ({ frequencyHz }: Point) => Math.abs(Math.log(frequencyHz / TREBLE_HZ));
  return {
    points: judged,
    worst: inside.toSorted((a, b) => Math.abs(b.levelDb) - Math.abs(a.levelDb)).at(0) ?? null,
    verdict: (["fail", "close", "pass"] as const).find((one) => verdicts.includes(one)) ?? null,
    treble:
      inside
        .filter(({ frequencyHz }) => frequencyHz >= LOWEST_TREBLE_HZ)
        .sort((a, b) => off(a) - off(b))[0] ?? null,
  };
}
