import { typedNumber } from "@/core/text/typed-number";
import { isSameSpare, spareSchema, type Spare } from "@/core/workshop/spare";
import { csvRows } from "./csv-rows";
import { csvText } from "./csv-text";
import { firstIssue, ImportError } from "./import-error";

const COLUMNS = ["name", "kind", "count", "place"] as const;
const rowSchema = spareSchema.pick({ name: true, kind: true, count: true, place: true });
export type SpareRow = Pick<Spare, (typeof COLUMNS)[number]>;

/** The spare-parts box as CSV (RFC 4180), a drawer a row. */
export const writeSparesCsv = (spares: readonly Spare[]): string =>
  csvText(
    spares.map(({ name, kind, count, place }) => ({ name, kind, count, place })),
    COLUMNS,
  );

/**
 * Reads a list of spare parts: a first row of names (name, kind, count, and perhaps place), one drawer a row. All of it
 * or nothing.
 * @throws ImportError naming the row and what is wrong with it
 */
export function readSparesCsv(text: string): SpareRow[] {
  const { names, rows } = csvRows(text, "list of spare parts");
  if (!names.includes("name") || !names.includes("count"))
    throw new ImportError(
      "This is not a list of spare parts: its first row must be name,kind,count (place if you like).",
    );
  if (rows.length === 0)
    throw new ImportError("The list names its columns but has no parts. Add a row for each.");
  const read = rows.map(({ number, cells }) => {
    const parsed = rowSchema.safeParse({
      name: cells.name,
      kind: cells.kind ? cells.kind.toLowerCase() : "other",
      count: typedNumber(cells.count ?? ""),
      place: cells.place ?? "",
    });
    if (!parsed.success)
      throw new ImportError(`Row ${number}: ${firstIssue(parsed.error)}. Nothing was imported.`);
    return { number, spare: parsed.data };
  });
  for (const [i, { number, spare }] of read.entries()) {
    const before = read.slice(0, i).find((one) => isSameSpare(one.spare, spare));
    if (before)
      throw new ImportError(
        `Row ${number}: "${spare.name}" stands in row ${before.number} already. Add the two together. Nothing was imported.`,
      );
  }
  return read.map(({ spare }) => spare);
}
