import Papa from "papaparse";
import { ImportError } from "./import-error";

/** Where the reader puts cells that stand under no name. */
const EXTRA = "__parsed_extra";

/**
 * Rows of a CSV text by the names in its first row; empty rows are left out.
 * @throws ImportError naming a row that has more cells than there are names
 */
export const csvRows = (text: string): Array<Record<string, string>> =>
  Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (header) => header.trim(),
  }).data.map((row, i) => {
    if (EXTRA in row)
      throw new ImportError(
        `Row ${i + 2} has more cells than the first row has names: a decimal comma cuts a number in two, write a point or put it in quotes.`,
      );
    return row;
  });
