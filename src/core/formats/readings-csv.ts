import { quantityOf } from "@/core/alignment/registry";
import type { Reading } from "@/core/records/reading";
import { csvText } from "./csv-text";

/**
 * Readings as CSV (RFC 4180), a row each, numbers unrounded. Text that a spreadsheet would take for a formula
 * is led by an apostrophe.
 */
export function readingsCsv(
  readings: readonly Reading[],
  machineName: string,
  tapeName: (id: string) => string,
): string {
  return csvText(
    readings.map((r) => ({
      time: r.at,
      machine: machineName,
      station: r.station,
      quantity: quantityOf(r.quantity).name,
      phase: r.phase,
      value: r.value,
      unit: r.unit,
      uncertainty: r.uncertainty,
      "own uncertainty": r.ownUncertainty,
      channel: r.context.channel,
      "nominal Hz": r.context.nominalHz,
      "speed cm/s": r.context.speedCmPerS,
      seconds: r.context.seconds,
      side: r.context.side ?? "",
      position: r.context.position ?? "",
      supply: r.context.supply ?? "",
      pitch: r.context.pitch ?? "",
      tape: tapeName(r.context.tapeId),
      method: r.method,
      source: `${r.source.kind}: ${r.source.name}`,
      engine: r.engine,
      id: r.id,
      supersedes: r.supersedes ?? "",
    })),
  );
}
