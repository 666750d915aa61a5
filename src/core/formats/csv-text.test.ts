import fc from "fast-check";
import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import { csvText } from "./csv-text";

const cellOf = (text: string): string => Papa.parse<string[]>(text).data[1][0];

describe("CSV text", () => {
  it.each(["=1+1", '=HYPERLINK("x")\nsecond line', " =1", "\n=1", "\t=1", "+1", "-x", "@sum", "＝1", "\r=2"])(
    "%j is no formula in a spreadsheet",
    (name) => expect(cellOf(csvText([{ name }]))).toBe(`'${name}`),
  );

  it("numbers, dates and plain names stay as they are", () => {
    expect(csvText([{ value: -1.5, name: "deck 1 = best", at: "2026-01-02" }])).toBe(
      "value,name,at\r\n-1.5,deck 1 = best,2026-01-02",
    );
  });

  it("no text at all starts a formula, and all of it comes back", () => {
    fc.assert(
      fc.property(
        fc.string({ unit: "binary", maxLength: 12 }),
        fc.constantFrom("", "=", "\n=", "+", " @"),
        (rest, lead) => {
          const name = lead + rest;
          const cell = cellOf(csvText([{ name }, { name: "x" }]));
          expect(cell.trimStart()).not.toMatch(/^[=+\-@]/);
          expect([name, `'${name}`]).toContain(cell);
        },
      ),
      { numRuns: 300 },
    );
  });
});
