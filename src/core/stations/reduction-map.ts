/** Levels and frequencies of the small map of what comes back through a noise reduction. */
export const MAP_LEVELS = [-10, -20, -30, -40] as const;
export const MAP_HZ = [400, 1000, 3000, 5000, 10_000] as const;
export const AT = {
  0: "reduction.at0",
  [-10]: "reduction.at10",
  [-20]: "reduction.at20",
  [-30]: "reduction.at30",
  [-40]: "reduction.at40",
} as const;
export type Level = keyof typeof AT;
export const LEVELS: readonly Level[] = [0, ...MAP_LEVELS];

/** A tone as it came back, less what was sent. */
export interface MapPoint {
  channel: string;
  level: Level;
  frequencyHz: number;
  errorDb: number;
  uncertaintyDb: number;
}

/** One tone of one channel. */
export const isSame = (a: MapPoint, b: MapPoint) =>
  a.channel === b.channel && a.level === b.level && isHz(a.frequencyHz, b.frequencyHz);

/** The points of the small map: four levels, five frequencies. */
export const mapOf = (points: readonly MapPoint[]): MapPoint[] =>
  points.filter(({ level, frequencyHz }) => level !== 0 && MAP_HZ.some((hz) => isHz(frequencyHz, hz)));

export const isHz = (frequencyHz: number, hz: number) => Math.abs(frequencyHz / hz - 1) < 0.01;

/**
 * The point of the map that decides: the one that is most surely outside the limit, or where none is, the one that may be
 * farthest off. Null where there is none.
 */
export function worstOf(points: readonly MapPoint[], limitDb: number): MapPoint | null {
  const all = mapOf(points);
  const surely = ({ errorDb, uncertaintyDb }: MapPoint) => Math.abs(errorDb) - uncertaintyDb;
  const perhaps = ({ errorDb, uncertaintyDb }: MapPoint) => Math.abs(errorDb) + uncertaintyDb;
  const [surest] = all.toSorted((a, b) => surely(b) - surely(a));
  if (surest && surely(surest) > limitDb) return surest;
  return all.toSorted((a, b) => perhaps(b) - perhaps(a))[0] ?? null;
}

/** What a switch does to a tone: on less off, of the channel that it does most to. */
export function switchDoes(
  now: readonly MapPoint[],
  off: readonly MapPoint[],
  level: Level,
  hz: number,
): { db: number; uncertaintyDb: number } | null {
  const all = now
    .filter((one) => one.level === level && isHz(one.frequencyHz, hz))
    .flatMap((one) => {
      const before = off.find((other) => isSame(one, other));
      return before
        ? [
            {
              db: one.errorDb - before.errorDb,
              uncertaintyDb: Math.hypot(one.uncertaintyDb, before.uncertaintyDb),
            },
          ]
        : [];
    });
  return all.toSorted((a, b) => Math.abs(b.db) - Math.abs(a.db))[0] ?? null;
}
