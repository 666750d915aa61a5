import Papa from "papaparse";

/** Rows of a CSV text by the names in its first row; empty rows are left out. */
export const csvRows = (text: string): Array<Record<string, string>> =>
  Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (header) => header.trim(),
  }).data;
