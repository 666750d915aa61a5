import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readResponseCsv, responseCsv } from "./response-csv";

describe("a response curve as CSV", () => {
  it("comes back in the order of frequency, decimal commas and minus signs of every kind", () => {
    expect(
      readResponseCsv('frequencyHz,levelDb,uncertaintyDb\r\n1000,"-0,5",0.3\r\n63,\u22121.25,\r\n'),
    ).toEqual([
      { frequencyHz: 63, levelDb: -1.25 },
      { frequencyHz: 1000, levelDb: -0.5, uncertaintyDb: 0.3 },
    ]);
  });

  it("what is written can be read again, one channel at a time", () => {
    const point = {
      frequencyHz: 10_000,
      levelDb: -1.2345,
      spreadDb: 0.1,
      uncertaintyDb: 0.3,
      rawDb: -21.2,
      bandLevelDb: -20,
      certificateDb: 0,
      fringingDb: 0,
      equalisationDb: 0,
    };
    const left = { channel: "left", points: [point] };
    expect(readResponseCsv(responseCsv([left]))).toEqual([
      { frequencyHz: 10_000, levelDb: -1.2345, uncertaintyDb: 0.3 },
    ]);
    const both = responseCsv([left, { channel: "right", points: [point] }]);
    expect(() => readResponseCsv(both)).toThrow(/more than one channel \(left, right\)/);
  });

  it.each<[string, string, RegExp]>([
    ["nothing", "", /not a response curve/],
    ["other columns", "hz,db\n1,2", /first row must be frequencyHz,levelDb/],
    ["a missing level", "frequencyHz,levelDb\n100,\n", /Row 2/],
    ["a word for a level", "frequencyHz,levelDb\n100,0\n200,loud", /Row 3/],
    ["more cells than names", "frequencyHz,levelDb\n100,0\n200,0,5", /Row 3 has more cells/],
    ["a row of commas", "frequencyHz,levelDb\n,,-", /Row 2 has more cells/],
    ["a frequency nobody hears", "frequencyHz,levelDb\n1,0", /Row 2.*5 to 50000 Hz/],
  ])("%s: refused with a sentence", (_, text, why) => {
    expect(() => readResponseCsv(text)).toThrow(why);
  });

  it("whatever is in the file, points or a sentence come of it", () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        try {
          for (const { frequencyHz, levelDb } of readResponseCsv(`frequencyHz,levelDb\n${text}`))
            expect(Number.isFinite(frequencyHz) && Number.isFinite(levelDb)).toBe(true);
        } catch (error) {
          expect((error as Error).name).toBe("ImportError");
          expect((error as Error).message.length).toBeGreaterThan(10);
        }
      }),
    );
  });
});
