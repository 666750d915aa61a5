import { z } from "zod";
import type { CurvePoint } from "@/core/advice/response-doctor";
import { csvRows } from "./csv-rows";
import { firstIssue, ImportError, MOST_TEXT_BYTES } from "./import-error";

const decimal = z
  .string()
  .trim()
  .min(1, "a number is missing")
  .transform((text) => Number(text.replace(",", ".").replace("−", "-")));
const rowSchema = z.object({
  frequencyHz: decimal.pipe(z.number().min(5, "a frequency from 5 to 50000 Hz").max(50_000)),
  levelDb: decimal.pipe(z.number().min(-120).max(60)),
  uncertaintyDb: decimal.pipe(z.number().min(0).max(20)).optional(),
});

/**
 * Reads a response curve: a first row of names (frequencyHz, levelDb, and perhaps uncertaintyDb, ± at 95 %), a point a
 * row, in any order. All of it or nothing.
 * @throws ImportError naming the row and what is wrong with it
 */
export function readResponseCsv(text: string): CurvePoint[] {
  if (text.length > MOST_TEXT_BYTES)
    throw new ImportError("The file is larger than any response curve. Choose another file.");
  const data = csvRows(text);
  if (data.length === 0 || !("frequencyHz" in data[0] && "levelDb" in data[0]))
    throw new ImportError("This is not a response curve: its first row must be frequencyHz,levelDb.");
  const points = data.map((row, i) => {
    const cells = Object.fromEntries(Object.entries(row).filter(([, cell]) => cell?.trim()));
    const parsed = rowSchema.safeParse(cells);
    if (!parsed.success) throw new ImportError(`Row ${i + 2}: ${firstIssue(parsed.error)}.`);
    return parsed.data;
  });
  return points.sort((a, b) => a.frequencyHz - b.frequencyHz);
}
