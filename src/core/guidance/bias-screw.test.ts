import { describe, expect, it } from "vitest";
import { HEARD_SCHOOLS } from "./bias-answers";
import { sensitivityDb, thirdDb } from "./bias-curves";
import { biasErrorAt, biasKnown } from "./bias-screw";

const TONES = { middleHz: 315, highHz: 10_000, speedCmPerS: 4.76 };
const known = (biasesDb: readonly number[]) =>
  biasKnown({
    about: "left",
    turns: biasesDb.slice(1).map(() => 0.125),
    heard: biasesDb.map((biasDb, afterTurns) => ({
      middleDb: sensitivityDb(biasDb, TONES.middleHz),
      highDb: sensitivityDb(biasDb, TONES.highHz),
      thirdDb: thirdDb(biasDb),
      afterTurns,
    })),
    beside: [],
    standing: null,
    tones: TONES,
    overBiasDb: 3,
  });

describe("a bias screw", () => {
  it.each([-3, 0, 3])(
    "that was heard at one place, %f dB off, is told by flatness alone, if at all",
    (biasDb) => {
      const of = known([biasDb]);
      const errors = HEARD_SCHOOLS.flatMap((school) => {
        const error = biasErrorAt(school, of, of.nowTurns);
        return error ? [{ school, ...error }] : [];
      });
      for (const { school, errorDb, uncertaintyDb } of errors) {
        expect(school).toBe("flatness");
        expect(Math.abs(errorDb - biasDb)).toBeLessThan(uncertaintyDb);
      }
    },
  );

  it("that was heard at two is told by the others too", () => {
    const of = known([-2, -1]);
    for (const school of ["flatness", "over-bias"] as const) {
      const { errorDb, uncertaintyDb } = biasErrorAt(school, of, of.nowTurns)!;
      expect(Math.abs(errorDb + 1)).toBeLessThan(uncertaintyDb + 0.3);
      expect(uncertaintyDb).toBeLessThan(school === "flatness" ? 2 : 3.5);
    }
  });
});
