import { biasAnswers, findingsOf, type BiasAnswer } from "@/core/guidance/bias-answers";
import { fitBias, type BiasPoint } from "@/core/guidance/bias-law";
import type { Trial } from "./random-recorders";

/** What is answered of a trial, or of points that take the place of its own. @returns direction null where it is not decided */
export function answersOfTrial(
  { points: own, tones, overBiasDb }: Trial,
  points: readonly BiasPoint[] = own,
) {
  const fit = fitBias(points, tones);
  const findings = findingsOf(fit, fit.laws(), points, overBiasDb);
  return {
    answers: biasAnswers(findings, points, overBiasDb),
    doubt: findings.doubt,
    direction: findings.doubt === null ? Math.sign(findings.placed[0].dbPerTurn) : null,
  };
}

/** How far an answer is from where its method truly stops, and its ±, dB of bias. */
export function offDb(
  { truth, dbPerTurn }: Trial,
  { school, turns, uncertaintyTurns }: BiasAnswer,
): [number, number] {
  return [Math.abs(turns! - truth[school]) * Math.abs(dbPerTurn), uncertaintyTurns * Math.abs(dbPerTurn)];
}
