import Papa from "papaparse";

type Cell = string | number | boolean | null | undefined;

/** What a spreadsheet takes for a formula, also behind spaces or a line break, and in full-width signs. */
const FORMULA = /^\s*[=+\-@＝＋－＠]|^[\t\r\n]/;

/**
 * Rows as CSV text (RFC 4180), names first. Text that a spreadsheet would take for a formula is led by an apostrophe;
 * numbers stay numbers.
 * @param columns in their order; those of the first row when left out
 */
export const csvText = (rows: ReadonlyArray<Record<string, Cell>>, columns?: readonly string[]): string =>
  Papa.unparse(
    { fields: [...(columns ?? Object.keys(rows.at(0) ?? {}))], data: [...rows] },
    { escapeFormulae: FORMULA, newline: "\r\n" },
  );
