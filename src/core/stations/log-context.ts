import type { Circumstances, Reading } from "@/core/records/reading";
import type { Quantity } from "./quantity";

export const ENGINE = "unzel 0.1";

/** What a reading needs beside its value. */
export interface LogContext {
  newId: () => string;
  jobId: string;
  channel: string;
  tapeId: string;
  tapeUncertaintyPercent: number;
  nominalHz: number;
  speedCmPerS: number;
  phase: Reading["phase"];
  at: string;
  source: Reading["source"];
  /** ± percent of the clock that sampled the sound; an uncalibrated sound card's when left out. */
  clockPercent?: number;
  /** The recording that was kept of it. */
  evidenceId?: string | null;
  circumstances?: Circumstances;
}

/** What is logged of one quantity. */
export interface Figure<Q extends string> {
  quantity: Q;
  value: number;
  uncertainty: number;
  /** The share of it that the measurement itself has; all of it when left out. */
  ownUncertainty?: number;
  method?: string;
  channel?: string;
  nominalHz?: number;
}

/** The readings of one moment at a station, as they are stored. */
export function readingsOfMoment<Q extends string>(
  station: { id: string; quantities: Readonly<Record<Q, Quantity>> },
  context: LogContext,
  { seconds, method }: { seconds: number; method: string },
  figures: ReadonlyArray<Figure<Q> | false | null>,
): Reading[] {
  const { newId, jobId, tapeId, speedCmPerS, phase, at, source, circumstances } = context;
  return figures
    .filter((figure) => figure !== null && figure !== false)
    .map((figure) => ({
      id: newId(),
      jobId,
      station: station.id,
      quantity: figure.quantity,
      value: figure.value,
      unit: station.quantities[figure.quantity].unit,
      uncertainty: figure.uncertainty,
      ownUncertainty: figure.ownUncertainty ?? figure.uncertainty,
      method: figure.method ?? method,
      context: {
        channel: figure.channel ?? context.channel,
        tapeId,
        nominalHz: figure.nominalHz ?? context.nominalHz,
        speedCmPerS,
        seconds,
        ...circumstances,
      },
      phase,
      at,
      source,
      engine: ENGINE,
      evidenceId: context.evidenceId ?? null,
      supersedes: null,
    }));
}
