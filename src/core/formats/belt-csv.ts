import { typedNumber } from "@/core/text/typed-number";
import { stockBeltSchema, type StockBelt } from "@/core/workshop/belt";
import { csvRows } from "./csv-rows";
import { firstIssue, ImportError } from "./import-error";

const NUMBERS = ["insideMm", "thicknessMm", "widthMm", "inStock"] as const;

/**
 * Reads a shop's list of belts: a first row of names (name, section, insideMm, thicknessMm, and perhaps widthMm and
 * inStock), one belt a row. All of it or nothing.
 * @throws ImportError naming the row and what is wrong with it
 */
export function readBeltsCsv(text: string): StockBelt[] {
  const { names, rows } = csvRows(text, "list of belts");
  if (!names.includes("insideMm"))
    throw new ImportError(
      "This is not a list of belts: its first row must be name,section,insideMm,thicknessMm (widthMm and inStock if you like).",
    );
  if (rows.length === 0)
    throw new ImportError("The list names its columns but has no belts. Add a row for each.");
  return rows.map(({ number, cells }) => {
    const numbers = NUMBERS.flatMap((key): Array<[string, number]> => {
      const cell = cells[key];
      return cell ? [[key, typedNumber(cell)]] : [];
    });
    const parsed = stockBeltSchema.safeParse({
      name: cells.name,
      section: cells.section?.toLowerCase(),
      ...Object.fromEntries(numbers),
    });
    if (!parsed.success)
      throw new ImportError(`Row ${number}: ${firstIssue(parsed.error)}. Nothing was imported.`);
    return parsed.data;
  });
}
