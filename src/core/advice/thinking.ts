import { biasKnown, type BiasKnown, type BiasScrew } from "@/core/guidance/bias-screw";
import { advisePeak, type PeakAdvice, type ScrewLevel } from "@/core/guidance/loudest-point";
import type { ResponsePoint } from "@/core/measure/response";
import type { SteadyStretch } from "@/core/measure/steady-stretch";
import { explainResponse, type ResponseFindings } from "./response-doctor";
import { transportView, type Geometry, type TransportView } from "./transport-view";

/** What takes longer to think out than a number may wait, with what it is thought out from. */
export interface Questions {
  /** Where the loudest point of a screw is. */
  peak: { levels: ScrewLevel[] };
  /** How bias screws act, and where each school would leave them. */
  bias: { screws: readonly BiasScrew[] };
  /** What a response looks like. */
  response: { points: ResponsePoint[]; curve: Parameters<typeof explainResponse>[1] };
  /** Which parts are heard in the flutter. */
  parts: { stretch: SteadyStretch; geometry: Geometry };
}
export interface Answers {
  peak: PeakAdvice;
  /** As many as were asked about. */
  bias: BiasKnown[];
  response: ResponseFindings;
  parts: TransportView;
}
export type Topic = keyof Questions;

const THINK: { [T in Topic]: (question: Questions[T]) => Answers[T] } = {
  peak: ({ levels }) => advisePeak(levels),
  bias: ({ screws }) => screws.map(biasKnown),
  response: ({ points, curve }) => explainResponse(points, curve),
  parts: ({ stretch, geometry }) => transportView(stretch, geometry),
};

/** The answer, in whatever time it takes. */
export const think = <T extends Topic>(topic: T, question: Questions[T]): Answers[T] =>
  THINK[topic](question);
