import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aBundle, aReading } from "@/testing/records";
import { ImportError } from "./import-error";
import { checksum, readBundle, writeBundle } from "./job-bundle";
import { readingsCsv } from "./readings-csv";

const written = () => writeBundle(aBundle(), "2026-11-22T08:00:00.000Z");
/** The bundle with one change, its checksum made right again. */
const changed = (change: (content: ReturnType<typeof aBundle>) => void): string => {
  const content = structuredClone(aBundle());
  change(content);
  return writeBundle(content, "2026-11-22T08:00:00.000Z");
};

describe("job bundle", () => {
  it("reads back exactly what was written", () => {
    expect(readBundle(written())).toEqual(aBundle());
  });

  it("keeps every digit and every character of what it carries", () => {
    fc.assert(
      fc.property(
        fc.double({ noNaN: true, noDefaultInfinity: true }),
        fc.string({ unit: "binary", maxLength: 300 }),
        (value, complaint) => {
          const content = aBundle();
          content.readings[0].value = value === 0 ? 0 : value;
          content.jobs[0].complaint = complaint;
          expect(readBundle(writeBundle(content, "2026-11-22T08:00:00.000Z"))).toEqual(content);
        },
      ),
      { numRuns: 100 },
    );
  });

  it("does not mind the order of keys or the spacing", () => {
    const raw = JSON.parse(written());
    raw.content = Object.fromEntries(Object.entries(raw.content).reverse());
    expect(readBundle(JSON.stringify(raw))).toEqual(aBundle());
  });

  it.each<[string, () => string, RegExp]>([
    ["a file of another kind", () => "RIFF....WAVE", /not a job file/],
    ["JSON of another kind", () => '{"format":"other","version":1}', /not a job file but "other"/],
    ["a file cut short", () => written().slice(0, 900), /cut short/],
    ["a newer file", () => written().replace('"version": 1', '"version": 2'), /newer Unzel/],
    ["a changed digit", () => written().replace("-1.62", "-1.63"), /checksum/],
    [
      "a job without a number",
      () => changed((c) => (c.jobs[0].number = "")),
      /jobs 1 number: Give the job a number\. /,
    ],
    [
      "a reading that is text",
      () => changed((c) => ((c.readings[0].value as unknown) = "fast")),
      /readings 1 value: a number is expected, "fast" was found/,
    ],
    ["a reading of no job", () => changed((c) => (c.readings[0].jobId = "gone")), /not in it/],
    ["a job whose machine is missing", () => changed((c) => (c.machines = [])), /not in it/],
    ["no jobs", () => changed((c) => (c.jobs = [])), /no job/],
  ])("refuses %s with a sentence", (_, text, why) => {
    expect(() => readBundle(text())).toThrow(ImportError);
    expect(() => readBundle(text())).toThrow(why);
  });

  it("takes a bundle written by hand, without a checksum", () => {
    const raw = JSON.parse(written());
    delete raw.checksum;
    expect(readBundle(JSON.stringify(raw))).toEqual(aBundle());
  });

  it("has a checksum of content, not of layout", () => {
    expect(checksum({ a: 1, b: [2, { c: 3, d: 4 }] })).toBe(checksum({ b: [2, { d: 4, c: 3 }], a: 1 }));
    expect(checksum({ a: 1 })).not.toBe(checksum({ a: 2 }));
  });
});

describe("readings as CSV", () => {
  it("has a row each with unrounded numbers", () => {
    const [head, row] = readingsCsv(
      [aReading({ value: -1.6200000001 })],
      "Tarnvik T-2",
      () => "SSA-03",
    ).split("\r\n");
    expect(head).toMatch(/^time,machine,station,quantity,phase,value,unit,uncertainty/);
    expect(row).toContain(",-1.6200000001,%,");
  });

  it.each(["=1+1", "+cmd", "@SUM(A1)", "-2+3", "\t=1", "\r=1"])(
    "keeps a spreadsheet from running %j",
    (evil) => {
      const text = readingsCsv(
        [aReading({ source: { kind: "file", name: "x" }, method: evil })],
        evil,
        () => evil,
      );
      const cells =
        text
          .split("\r\n")
          .slice(1)
          .join("\r\n")
          .match(/("([^"]|"")*"|[^,]*)(,|$)/g) ?? [];
      for (const cell of cells) expect(cell.replace(/^"/, "")).not.toMatch(/^[=+@\t\r]|^-[^\d]/);
      expect(text).toContain(`'${evil}`);
    },
  );
});
