import { typedNumber } from "@/core/text/typed-number";
import { stockBeltSchema, type StockBelt } from "@/core/workshop/belt";
import { csvRows } from "./csv-rows";
import { firstIssue, ImportError, MOST_TEXT_BYTES } from "./import-error";

const NUMBERS = ["insideMm", "thicknessMm", "widthMm", "inStock"] as const;

/**
 * Reads a shop's list of belts: a first row of names (name, section, insideMm, thicknessMm, and perhaps widthMm and
 * inStock), one belt a row. All of it or nothing.
 * @throws ImportError naming the row and what is wrong with it
 */
export function readBeltsCsv(text: string): StockBelt[] {
  if (text.length > MOST_TEXT_BYTES)
    throw new ImportError("The file is larger than any list of belts. Choose another file.");
  const data = csvRows(text);
  if (data.length === 0 || !("insideMm" in data[0]))
    throw new ImportError(
      "This is not a list of belts: its first row must be name,section,insideMm,thicknessMm (widthMm and inStock if you like).",
    );
  return data.map((row, i) => {
    const numbers = NUMBERS.flatMap((key): Array<[string, number]> => {
      const cell = row[key]?.trim();
      return cell ? [[key, typedNumber(cell)]] : [];
    });
    const parsed = stockBeltSchema.safeParse({
      name: row.name ?? "",
      section: row.section?.trim().toLowerCase(),
      ...Object.fromEntries(numbers),
    });
    if (!parsed.success)
      throw new ImportError(`Row ${i + 2}: ${firstIssue(parsed.error)}. Nothing was imported.`);
    return parsed.data;
  });
}
