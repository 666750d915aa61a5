import { describe, expect, it } from "vitest";
import { cubicTable } from "@/core/dsp/cubic-table";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { BIAS_TABLE } from "@/core/standards/bias-curves";
import {
  biasAnswers,
  biasError,
  biasSentence,
  HEARD_SCHOOLS,
  findingsOf,
  peakToHear,
  type HeardSchool,
} from "./bias-answers";
import { fitBias, type BiasPoint } from "./bias-law";

/** A law of bias: curves over dB re the recommended one. */
interface Law {
  middle(b: number): number;
  high(b: number): number;
  third(b: number): number;
}
const THIRD_DB = BIAS_TABLE.thirdPercent.map((percent) => 20 * Math.log10(percent / 100));
const row = (i: number) => (b: number) => cubicTable(BIAS_TABLE.biasDb, BIAS_TABLE.sensitivityDb[i].db, b);
const LAWS: Record<string, Law> = {
  "the typical cassette": {
    middle: row(0),
    high: row(2),
    third: (b) => cubicTable(BIAS_TABLE.biasDb, THIRD_DB, b),
  },
  "parabolas, steeper below the peak": {
    middle: (b) => -0.06 * (b - 1) ** 2,
    high: (b) => 2.4 - (b > -3.5 ? 0.17 : 0.25) * (b + 3.5) ** 2,
    third: (b) => -43 + (b < 1.6 ? 0.32 : 0.18) * (b - 1.6) ** 2,
  },
  "another tape": {
    middle: (b) => -0.04 * (b - 0.5) ** 2,
    high: (b) => 3.2 - 0.22 * (b + 3) ** 2,
    third: (b) => -44 + 0.4 * (b - 2) ** 2,
  },
};
const TONES = { middleHz: 315, highHz: 10_000, speedCmPerS: 4.76 };
const OVER_BIAS_DB = 3;
const found = (points: BiasPoint[], overBiasDb: number | null = OVER_BIAS_DB) => {
  const fit = fitBias(points, TONES);
  return findingsOf(fit, fit.laws(), points, overBiasDb);
};
/** The machine plays its channels back at levels of their own. */
const LEVEL_DB = 1.3;

const heard = ({ middle, high, third }: Law, turns: number, b: number, random: SeededRandom): BiasPoint => ({
  turns,
  middleDb: middle(b) + LEVEL_DB + 0.02 * random.normal(),
  highDb: high(b) + LEVEL_DB + 0.02 * random.normal(),
  thirdDb: third(b) + 0.1 * random.normal(),
});

/** Where each school stops, dB of bias, by walking along the law itself. */
function truth({ middle, high, third }: Law): Record<HeardSchool, number> {
  const all = Array.from({ length: 3001 }, (_, i) => -7 + i / 200);
  const peak = all.reduce((a, b) => (high(b) > high(a) ? b : a));
  return {
    flatness: all.find((b) => b > peak && high(b) < middle(b))!,
    "over-bias": all.find((b) => b > peak && high(b) < high(peak) - OVER_BIAS_DB)!,
    "third-harmonic": all.reduce((a, b) => (third(b) < third(a) ? b : a)),
  };
}

const WITHIN_DB: Record<HeardSchool, number> = { flatness: 0.25, "over-bias": 0.4, "third-harmonic": 0.6 };

describe("the law of a bias screw, from five places of it", () => {
  const cases = Object.keys(LAWS).flatMap((name) =>
    [10, -10, 24].flatMap((perTurn) => [-4, -2.4].map((from) => [name, perTurn, from] as const)),
  );
  it.each(cases)(
    "%s, %f dB a turn, from %f dB: each school to a fraction of a decibel",
    (name, perTurn, from) => {
      const random = new SeededRandom(11);
      const law = LAWS[name];
      const biases = Array.from({ length: 5 }, (_, i) => from + 1.6 * i);
      const points = biases.map((b) => heard(law, (b - from) / perTurn, b, random));
      const answers = biasAnswers(found(points), points, OVER_BIAS_DB);
      const expected = truth(law);
      expect(answers.map(({ school }) => school)).toEqual([...HEARD_SCHOOLS]);
      for (const { school, turns, uncertaintyTurns } of answers) {
        // over-bias is a drop from the peak: of settings that do not reach it, it may be inconclusive
        const enclosed = school !== "over-bias" || from < -3.8;
        if (!enclosed && turns === null) continue;
        const off = from + turns! * perTurn - expected[school];
        if (enclosed) expect(Math.abs(off), school).toBeLessThan(WITHIN_DB[school]);
        expect(Math.abs(off), school).toBeLessThan(2.2 * Math.abs(uncertaintyTurns * perTurn) + 0.1);
      }
    },
  );
});

describe("the ± of what is told", () => {
  const schools = LAWS["the typical cassette"];

  it.each([2, 3])("holds the truth nineteen times of twenty, of screws heard at %d places", (places) => {
    const random = new SeededRandom(7);
    const told = HEARD_SCHOOLS.map(() => ({ all: 0, right: 0, wide: 0 }));
    for (let machine = 0; machine < 100; machine++) {
      // the tape differs from the typical one, and the equaliser is off
      const [deep, shift, equaliserDb] = [
        1 + 0.15 * random.normal(),
        0.5 * random.normal(),
        1.5 * random.normal(),
      ];
      const law = { ...schools, high: (b: number) => deep * schools.high(b - shift) + equaliserDb };
      const from = 2.5 * random.normal();
      const perTurn = (random.uniform() < 0.5 ? -1 : 1) * 8 * Math.exp(0.6 * random.normal());
      const points = [0, 0.125, -0.1]
        .slice(0, places)
        .map((turns) => heard(law, turns, from + turns * perTurn, random));
      const laws = found(points);
      const stops = truth(law);
      HEARD_SCHOOLS.forEach((school, i) => {
        const error = biasError(school, laws, 0);
        if (!error) return;
        told[i].all++;
        told[i].wide += error.uncertaintyDb;
        if (Math.abs(error.errorDb - (from - stops[school])) < error.uncertaintyDb) told[i].right++;
      });
    }
    for (const { all, right, wide } of told) {
      expect(all).toBeGreaterThan(40);
      expect(right / all).toBeGreaterThan(0.93);
      expect(wide / all).toBeLessThan(places === 2 ? 3.6 : 3);
    }
  });
});

describe("what too little to go by tells", () => {
  const law = LAWS["the typical cassette"];
  const at = (biases: number[], perTurn: number) => {
    const random = new SeededRandom(3);
    const points = biases.map((b) => heard(law, (b - biases[0]) / perTurn, b, random));
    return biasAnswers(found(points), points, OVER_BIAS_DB);
  };
  const flat = (biases: number[], perTurn: number) =>
    at(biases, perTurn).find(({ school }) => school === "flatness")!;

  it("one place tells about how the bias stands and nothing of the screw, two tell the way and about how far", () => {
    expect(at([-3], 8).every(({ turns }) => turns === null)).toBe(true);
    const [one] = [-3].map((b) => heard(law, 0, b, new SeededRandom(2)));
    const { errorDb, uncertaintyDb } = biasError("flatness", found([one], null), 0)!;
    expect(Math.abs(errorDb + 3)).toBeLessThan(uncertaintyDb);
    expect(uncertaintyDb).toBeLessThan(4);
    for (const perTurn of [8, -8]) {
      const { turns, uncertaintyTurns } = flat([-3, -2], perTurn);
      expect(Math.abs(turns! * perTurn - 3)).toBeLessThan(1);
      expect(Math.abs(turns! * perTurn - 3)).toBeLessThan(uncertaintyTurns * 8);
    }
  });

  it.each([8, -8])("the peak is where to hear it until it was, at %f dB a turn", (perTurn) => {
    const points = (biases: number[]) => biases.map((b) => heard(law, b / perTurn, b, new SeededRandom(4)));
    const toHear = (biases: number[]) => peakToHear(found(points(biases)).placed, points(biases));
    const turns = toHear([-1, 0, 1])!;
    // loudest 3.7 dB below; the points tell about where
    expect(Math.abs(turns * perTurn + 3.7)).toBeLessThan(1.2);
    const overBias = (biases: number[]) => biasError("over-bias", found(points(biases)), 0)!;
    const there = [-1, 0, 1, turns * perTurn];
    expect(toHear(there)).toBeNull();
    expect(overBias(there).uncertaintyDb).toBeLessThan(0.7 * overBias([-1, 0, 1]).uncertaintyDb);
    expect(Math.abs(overBias(there).errorDb)).toBeLessThan(overBias(there).uncertaintyDb + 0.2);
  });

  it("an answer far beyond what was heard is none, and says what would tell", () => {
    const [, , third] = at([-5.5, -5.2, -4.9], 8);
    expect(third).toMatchObject({ school: "third-harmonic", turns: null });
    expect(third.says).toMatch(/farther on|farther away/);
  });

  it("without an over-bias figure that school says so; a hidden third harmonic leaves the others", () => {
    const random = new SeededRandom(5);
    const points = [-3, -1.5, 0, 1.5].map((b) => ({ ...heard(law, b / 8, b, random), thirdDb: null }));
    const [overBias, flatness] = biasAnswers(found(points, null), points, null);
    expect(overBias.turns).toBeNull();
    expect(overBias.says).toMatch(/no over-bias figure/);
    expect(flatness.turns! * 8).toBeCloseTo(0, 0);
    expect(biasSentence([overBias, flatness])).toMatch(/^Flatness at .* turns; over-bias inconclusive\.$/);
  });
});
