import { lineThrough } from "@/core/dsp/line-fit";

export interface WarmUp {
  /** Where the speed is heading, percent. */
  endsAtPercent: number;
  /** What is still to come. */
  remainingPercent: number;
  minutesToGo: number;
  timeConstantMinutes: number;
}

const SHORTEST_SECONDS = 60;
const TIME_CONSTANTS = { from: 20, to: 1800, steps: 40 };
/** The curve has to leave so much less of the scatter than a flat line does. */
const BETTER = 0.6;

/**
 * Fits a + b·exp(−t/τ) to a speed that settles after power-on. Null while nothing of the kind is seen: too short a
 * run, or a speed that only wanders.
 * @param toleratedPercent the warm-up counts as over when less than this is still to come
 */
export function warmUpOf(
  values: ReadonlyArray<number | null>,
  stepSeconds: number,
  toleratedPercent: number,
): WarmUp | null {
  const points = values.flatMap((y, i) => (y === null ? [] : [[i * stepSeconds, y] as const]));
  if (points.length < 20 || points[points.length - 1][0] - points[0][0] < SHORTEST_SECONDS) return null;
  const n = points.length;
  const last = points[n - 1][0];
  const meanY = points.reduce((s, [, y]) => s + y, 0) / n;
  const flat = points.reduce((s, [, y]) => s + (y - meanY) ** 2, 0);
  let best: { rest: number; a: number; b: number; tau: number } | null = null;
  const { from, to, steps } = TIME_CONSTANTS;
  for (let i = 0; i <= steps; i++) {
    const tau = from * (to / from) ** (i / steps);
    const { start, slope, scatter } = lineThrough(
      points.map(([t, y]) => [Math.exp(-(t - last) / tau), y] as const),
    );
    const rest = n * scatter * scatter;
    if (best === null || rest < best.rest) best = { rest, a: start, b: slope, tau };
  }
  if (best === null || best.rest > BETTER * flat) return null;
  const remaining = Math.abs(best.b);
  return {
    endsAtPercent: best.a,
    remainingPercent: -best.b,
    minutesToGo: remaining <= toleratedPercent ? 0 : (best.tau * Math.log(remaining / toleratedPercent)) / 60,
    timeConstantMinutes: best.tau / 60,
  };
}
