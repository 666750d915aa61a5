import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { DEMO_TAPES } from "@/core/reference/demo-tapes";
import {
  frequencyUncertaintyOf,
  referenceTapeSchema,
  timeConstants,
  type ReferenceTape,
} from "@/core/reference/reference-tape";
import { sectionName } from "@/core/programme/programme";
import { ImportError } from "./import-error";
import { readTapesCsv, writeTapesCsv } from "./tape-csv";
import { readTapeJson, writeTapeJson } from "./tape-json";

const TAPES = [...DEMO_TAPES, ...BUILT_IN_TAPES];
const text = fc.string({ maxLength: 30 }).map((s) => s.replace(/[\r\n]/g, " ").trim());
const anyTape = fc.record({
  format: fc.constant("unzel-reference-tape" as const),
  version: fc.constant(1 as const),
  id: fc.stringMatching(/^[a-z0-9-]{1,20}$/),
  name: text.filter((s) => s.length > 0 && !s.startsWith("'")),
  speedCmPerS: fc.constantFrom(4.76, 9.53, 19.05),
  frequencyUncertaintyPercent: fc.constantFrom(0.1, 0.3, 1),
  bands: fc.array(
    fc.record({
      kind: fc.constant("tone" as const),
      frequencyHz: fc.integer({ min: 20, max: 20000 }),
      levelDb: fc.integer({ min: -40, max: 3 }),
      seconds: fc.integer({ min: 1, max: 600 }),
      correctionDb: fc.option(
        fc.record({ left: fc.constantFrom(-0.5, 0, 0.25), right: fc.constantFrom(-1, 0.1) }),
        { nil: undefined },
      ),
    }),
    { minLength: 1, maxLength: 6 },
  ),
});
const plain = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;

describe("reference tape files", () => {
  it("every tape that ships with Unzel is valid and survives JSON and CSV", () => {
    for (const tape of TAPES) {
      expect(plain(referenceTapeSchema.parse(tape))).toEqual(plain(tape));
      expect(plain(readTapeJson(writeTapeJson(tape)))).toEqual(plain(tape));
    }
    expect(plain(readTapesCsv(writeTapesCsv(TAPES)))).toEqual(plain(TAPES));
  });

  it("any tape survives CSV, whatever its name", () => {
    fc.assert(
      fc.property(anyTape, (tape) => {
        expect(plain(readTapesCsv(writeTapesCsv([tape as ReferenceTape])))).toEqual([plain(tape)]);
      }),
      { numRuns: 200 },
    );
  });

  it("no cell of it is a formula to a spreadsheet", () => {
    const csv = writeTapesCsv([{ ...TAPES[0], name: "=HYPERLINK(1)", notes: "+1", id: "@x" }]);
    for (const cell of csv.split(/[,\r\n]/)) expect(cell.replace(/^"/, "")).not.toMatch(/^[=+@]/);
    expect(readTapesCsv(csv)[0].name).toBe("=HYPERLINK(1)");
  });

  it("takes semicolons, decimal commas, a byte-order mark and columns in any order", () => {
    const csv =
      "\uFEFFlevelDb;kind;seconds;frequencyHz;speedCmPerS;name;id\r\n−10,5;tone;20;1000;4,76;My tape;my-1\r\n";
    expect(readTapesCsv(csv)[0]).toMatchObject({
      id: "my-1",
      speedCmPerS: 4.76,
      bands: [{ levelDb: -10.5, seconds: 20 }],
    });
  });

  it("only what must be there has to be there", () => {
    const least = {
      format: "unzel-reference-tape",
      version: 1,
      id: "a",
      name: "A",
      speedCmPerS: 19.05,
      bands: [{ kind: "silence", frequencyHz: 0, levelDb: -100, seconds: 3 }],
    };
    expect(readTapeJson(JSON.stringify(least)).frequencyUncertaintyPercent).toBe(0.3);
  });
});

describe("bad files are refused with a sentence", () => {
  const json = writeTapeJson(TAPES[0]);
  it.each([
    ["{", /not complete JSON/],
    ["[]", /not a reference tape/],
    ["null", /not a reference tape/],
    [json.replace('"unzel-reference-tape"', '"other"'), /not a reference tape/],
    [json.replace('"version": 1', '"version": 9'), /version 9/],
    [json.replace(/"seconds": \d+/, '"seconds": -1'), /bands 1 seconds/],
    [json.replace(/"frequencyHz": \d+/, '"frequencyHz": 1'), /bands 1 frequencyHz.*10 to 30000/],
  ])("JSON %#", (text_, why) => {
    expect(() => readTapeJson(text_)).toThrow(why);
  });

  it.each([
    ["", /lacks the columns? id, name/],
    ["id,name,speedCmPerS,kind,levelDb,seconds\r\n", /no rows/],
    [
      "id,name,speedCmPerS,kind,levelDb,seconds,frequencyHz\na,A,fast,tone,0,1,1000",
      /Row 2, speedCmPerS: "fast"/,
    ],
    ["id,name,speedCmPerS,kind,levelDb,seconds,frequencyHz\na,A,4.76,sweep,0,1,1000", /ends at/],
    ['id,name,speedCmPerS,kind,levelDb,seconds\na,"A,4.76,tone,0,1', /quotation mark/],
  ])("CSV %#", (csv, why) => {
    expect(() => readTapesCsv(csv)).toThrow(why);
  });

  it("whatever is done to a file", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(json, writeTapesCsv(TAPES.slice(0, 2))),
        fc.array(fc.tuple(fc.nat(), fc.string({ maxLength: 3 })), { minLength: 1, maxLength: 8 }),
        (file, changes) => {
          let damaged = file;
          for (const [at, insert] of changes) {
            const place = at % damaged.length;
            damaged = damaged.slice(0, place) + insert + damaged.slice(place + 1);
          }
          for (const read of [readTapeJson, readTapesCsv])
            try {
              read(damaged);
            } catch (error) {
              expect(error).toBeInstanceOf(ImportError);
            }
        },
      ),
      { numRuns: 300 },
    );
  });
});

it("a home-made tape is no better known than the deck that made it", () => {
  const homeMade = TAPES.find(({ id }) => id === "ssa-07")!;
  expect(frequencyUncertaintyOf(homeMade)).toBeCloseTo(Math.hypot(0.05, 1), 12);
  expect(frequencyUncertaintyOf(TAPES[0])).toBe(0.03);
});

it("names bands and equalisations as the field does", () => {
  const band = { kind: "tone" as const, frequencyHz: 12500, levelDb: -20, seconds: 1 };
  expect(sectionName(band)).toBe("12.5 kHz, −20 dB");
  expect(sectionName({ ...band, kind: "sweep", frequencyHz: 40, toFrequencyHz: 12500 })).toBe(
    "40 Hz to 12.5 kHz, −20 dB",
  );
  expect(timeConstants("3180/70", 4.76)).toEqual({ t1Microseconds: 3180, t2Microseconds: 70 });
  expect(timeConstants("∞/35", 38.1)).toEqual({ t1Microseconds: 0, t2Microseconds: 35 });
  expect(timeConstants(undefined, 9.53)).toEqual({ t1Microseconds: 3180, t2Microseconds: 90 });
});
