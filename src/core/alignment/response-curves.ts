import { inForce } from "@/core/records/job-records";
import type { Phase, Reading } from "@/core/records/reading";

/** A response as it was logged: one channel in one direction, all bands of one moment. */
export interface ResponseCurve {
  channel: string;
  side: "A" | "B" | null;
  phase: Phase;
  at: string;
  tapeId: string;
  /** Lowest frequency first. */
  points: Array<{ frequencyHz: number; levelDb: number; uncertaintyDb: number }>;
}

/** Every response among the readings, oldest first. */
export function allCurves(readings: Reading[], quantityOfPoints = "response.point"): ResponseCurve[] {
  const curves = new Map<string, ResponseCurve>();
  for (const { quantity, context, phase, at, value, uncertainty } of inForce(readings)) {
    if (quantity !== quantityOfPoints) continue;
    const { channel, side = null, tapeId, nominalHz } = context;
    const key = `${at} ${channel} ${side}`;
    const curve = curves.get(key) ?? { channel, side, phase, at, tapeId, points: [] };
    curve.points.push({ frequencyHz: nominalHz, levelDb: value, uncertaintyDb: uncertainty });
    curves.set(key, curve);
  }
  for (const { points } of curves.values()) points.sort((a, b) => a.frequencyHz - b.frequencyHz);
  return [...curves.values()];
}

/** The response of each channel and direction as it was found first and left last. */
export function curvesOf(readings: Reading[], quantityOfPoints?: string): ResponseCurve[] {
  const curves = allCurves(readings, quantityOfPoints);
  const same = (one: ResponseCurve) => (other: ResponseCurve) =>
    other.channel === one.channel && other.side === one.side && other.phase === one.phase;
  return curves.filter((curve) =>
    curve.phase === "as found"
      ? curves.find(same(curve)) === curve
      : curve.phase === "as left" && curves.findLast(same(curve)) === curve,
  );
}
