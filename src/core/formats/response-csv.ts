import { typedNumber } from "@/core/text/typed-number";
import * as z from "@/core/text/zod";
import type { CurvePoint } from "@/core/advice/response-doctor";
import type { ResponsePoint } from "@/core/measure/response";
import { csvText } from "./csv-text";
import { csvRows } from "./csv-rows";
import { firstIssue, ImportError } from "./import-error";

const decimal = z.string().trim().min(1, "a number is missing").transform(typedNumber);
const rowSchema = z.object({
  frequencyHz: decimal.pipe(z.number().min(5, "a frequency from 5 to 50000 Hz").max(50_000)),
  levelDb: decimal.pipe(z.number().min(-120).max(60)),
  uncertaintyDb: decimal.pipe(z.number().min(0).max(20)).optional(),
});

/** Every point of each channel as CSV (RFC 4180), a row each, with what was taken away, numbers unrounded. */
export const responseCsv = (channels: ReadonlyArray<{ channel: string; points: ResponsePoint[] }>): string =>
  csvText(channels.flatMap(({ channel, points }) => points.map((point) => ({ channel, ...point }))));

/**
 * Reads a response curve: a first row of names (frequencyHz, levelDb, and perhaps uncertaintyDb, ± at 95 %), a point a
 * row, in any order, of one channel. All of it or nothing.
 * @throws ImportError naming the row and what is wrong with it
 */
export function readResponseCsv(text: string): CurvePoint[] {
  const { names, rows } = csvRows(text, "response curve");
  if (!names.includes("frequencyHz") || !names.includes("levelDb"))
    throw new ImportError("This is not a response curve: its first row must be frequencyHz,levelDb.");
  if (rows.length === 0) throw new ImportError("The response curve names its columns but has no points.");
  const channels = [...new Set(rows.map(({ cells }) => cells.channel ?? ""))];
  if (channels.length > 1)
    throw new ImportError(
      `The file holds more than one channel (${channels.slice(0, 4).join(", ").slice(0, 80)}): keep the rows of one.`,
    );
  const points = rows.map(({ number, cells }) => {
    const parsed = rowSchema.safeParse(
      Object.fromEntries(Object.entries(cells).filter(([, cell]) => cell !== "")),
    );
    if (!parsed.success) throw new ImportError(`Row ${number}: ${firstIssue(parsed.error)}.`);
    return parsed.data;
  });
  return points.sort((a, b) => a.frequencyHz - b.frequencyHz);
}
