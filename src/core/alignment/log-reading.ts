import type { FlutterResult } from "@/core/measure/flutter";
import { unitOf, type Quantity } from "./quantities";
import type { Circumstances, Reading, StationId } from "./records";
import { flutterUncertainty, speedUncertainty } from "./uncertainty";

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

/** A speed reading as it is stored, from a measured mean and its own uncertainty (percent). */
export function speedReading(
  measured: { errorPercent: number; uncertaintyPercent: number; seconds: number },
  context: LogContext,
): Reading {
  return {
    ...base(context, "speed", "speedError", measured.seconds),
    value: measured.errorPercent,
    uncertainty: speedUncertainty(
      measured.uncertaintyPercent,
      context.tapeUncertaintyPercent,
      context.clockPercent,
    ),
    ownUncertainty: measured.uncertaintyPercent,
    method: "Hann-weighted mean of the instantaneous frequency",
  };
}

/** One reading per flutter meter, all at one time, so that no figure is ever recomputed from another. */
export function flutterReadings(measured: FlutterResult, context: LogContext): Reading[] {
  const { weighted, unweighted } = measured;
  const figures: Array<[Quantity, number, string]> = [
    ["flutter.weighted.peak", weighted.peakPercent, "quasi-peak, IEC 60386"],
    ["flutter.weighted.twoSigma", weighted.twoSigmaPercent, "two-sigma, AES6"],
    ["flutter.weighted.rms", weighted.rmsPercent, "RMS, JIS C 5551"],
    ["flutter.weighted.average", weighted.averagePercent, "full-wave average, NAB"],
    ["flutter.unweighted.peak", unweighted.peakPercent, "quasi-peak, IEC 60386"],
    ["flutter.unweighted.twoSigma", unweighted.twoSigmaPercent, "two-sigma, AES6"],
    ["flutter.unweighted.rms", unweighted.rmsPercent, "RMS, JIS C 5551"],
    ["flutter.unweighted.average", unweighted.averagePercent, "full-wave average, NAB"],
    ["flutter.wow", measured.wowRmsPercent, "RMS of the spectrum, 0.1 to 10 Hz"],
    ["flutter.flutter", measured.flutterRmsPercent, "RMS of the spectrum, 10 to 200 Hz"],
  ];
  return figures.map(([quantity, value, method]) => ({
    ...base(context, "flutter", quantity, measured.seconds),
    value,
    uncertainty: flutterUncertainty(value),
    ownUncertainty: flutterUncertainty(value),
    method,
  }));
}

/** The fields that every reading has; its unit is that of the quantity. */
export function base<Q extends Quantity>(
  context: LogContext,
  station: StationId,
  quantity: Q,
  seconds: number,
) {
  const { newId, jobId, channel, tapeId, nominalHz, speedCmPerS, phase, at, source } = context;
  return {
    id: newId(),
    jobId,
    station,
    quantity,
    unit: unitOf(quantity),
    context: { channel, tapeId, nominalHz, speedCmPerS, seconds, ...context.circumstances },
    phase,
    at,
    source,
    engine: ENGINE,
    evidenceId: context.evidenceId ?? null,
    supersedes: null,
  };
}
