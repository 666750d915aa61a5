import type { BiasLaw } from "./bias-law";

/** A law as plain values at even steps of its screw, which can be handed from thread to thread. */
export interface LawTable {
  /** Bias per turn, dB, clockwise positive. */
  dbPerTurn: number;
  fromTurns: number;
  stepTurns: number;
  middleDb: number[];
  highDb: number[];
  thirdDb: number[];
}

/** How far beyond the places it is made for it reaches, dB of bias, and in how many steps it is kept. */
const BEYOND_DB = 6;
const STEPS = 600;

/** @param places places of the screw that it has to reach beyond, turns */
export function tableOfLaw(law: BiasLaw, places: readonly number[]): LawTable {
  const { dbPerTurn } = law;
  const beyond = BEYOND_DB / Math.abs(dbPerTurn);
  const fromTurns = Math.min(...places) - beyond;
  const stepTurns = (Math.max(...places) + beyond - fromTurns) / STEPS;
  const along = (curve: (turns: number) => number) =>
    Array.from({ length: STEPS + 1 }, (_, i) => curve(fromTurns + i * stepTurns));
  const [middleDb, highDb, thirdDb] = [law.middleDb, law.highDb, law.thirdDb].map(along);
  return { dbPerTurn, fromTurns, stepTurns, middleDb, highDb, thirdDb };
}

/** A curve of it at a place of the screw, straight between its steps; beyond its ends it stays at them. */
export function alongLaw(
  { fromTurns, stepTurns, ...curves }: LawTable,
  curve: "middleDb" | "highDb" | "thirdDb",
  turns: number,
): number {
  const values = curves[curve];
  const at = Math.max(0, Math.min(values.length - 1, (turns - fromTurns) / stepTurns));
  const i = Math.min(values.length - 2, Math.floor(at));
  return values[i] + (at - i) * (values[i + 1] - values[i]);
}
