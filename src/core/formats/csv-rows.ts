import Papa from "papaparse";
import { ImportError, MOST_TEXT_BYTES } from "./import-error";

/** A row under the names of the first one. */
export interface CsvRow {
  /** Of its line, the first being 1. */
  number: number;
  /** By name, without the spaces around them; of a row that ends early the rest is empty. */
  cells: Record<string, string>;
}

const MOST_ROWS = 10_000;
const MOST_COLUMNS = 200;

/**
 * Rows of a CSV text (RFC 4180; commas, semicolons or tabs) by the names in its first row; empty rows are left out.
 * @param what the kind of thing in it, as in "list of belts"
 * @throws ImportError naming the row and what is wrong with it
 */
export function csvRows(text: string, what: string): { names: string[]; rows: CsvRow[] } {
  if (text.length > MOST_TEXT_BYTES)
    throw new ImportError(`The file is larger than any ${what}. Choose another file.`);
  const plain = text.replace(/^\uFEFF/, "");
  const how = { delimitersToGuess: [",", ";", "\t"] };
  const delimiter = Papa.parse<string[]>(plain, { ...how, preview: 10 }).meta.delimiter;
  const { data, errors } = Papa.parse<string[]>(plain, { delimiter, preview: MOST_ROWS + 2 });
  const damage = errors.find(({ type }) => type === "Quotes");
  if (damage)
    throw new ImportError(
      `Row ${(damage.row ?? 0) + 1}: a quotation mark is not closed, or stands in the middle of a cell. Save the table as CSV again.`,
    );
  const [first = [], ...others] = data;
  const names = first.map((name) => name.trim());
  if (names.length > MOST_COLUMNS)
    throw new ImportError(
      `The first row has ${names.length} names: no ${what} has more than ${MOST_COLUMNS}.`,
    );
  const twice = names.find((name, i) => name !== "" && names.indexOf(name) < i);
  if (twice !== undefined)
    throw new ImportError(`The first row names "${twice.slice(0, 40)}" twice: it must be one or the other.`);
  if (others.length > MOST_ROWS)
    throw new ImportError(`The table has more than ${MOST_ROWS} rows: so many cannot be read.`);
  const rows = others.flatMap((row, i): CsvRow[] => {
    if (row.every((cell) => cell.trim() === "")) return [];
    if (row.slice(names.length).some((cell) => cell.trim() !== ""))
      throw new ImportError(
        `Row ${i + 2} has more cells than the first row has names: a decimal comma cuts a number in two, write a point or put it in quotes.`,
      );
    const cells = Object.fromEntries(names.map((name, c) => [name, (row[c] ?? "").trim()]));
    return [{ number: i + 2, cells }];
  });
  return { names, rows };
}
