import { describe, expect, it } from "vitest";
import { explainDistortion, type DistortionSeen } from "./explain-distortion";
import { explainRecordResponse } from "./explain-record-response";

const causes = (fields: Partial<DistortionSeen>) =>
  explainDistortion({
    thirdPercent: 2.4,
    secondPercent: null,
    sourceThirdPercent: 0.01,
    limitPercent: 1,
    others: [],
    biasErrorDb: 0,
    biasUncertaintyDb: 0.2,
    biasLimitDb: 1,
    overBias: "not asked",
    recordLevel: { errorDb: 0, uncertaintyDb: 0.05 },
    fallsDbPerDb: 2,
    ...fields,
  });
const seen = (fields: Partial<DistortionSeen>): string[] => causes(fields).map(({ name }) => name);

describe("what a pattern of distortion means first", () => {
  it.each<[string, Partial<DistortionSeen>, string]>([
    ["in the source too", { sourceThirdPercent: 2 }, "it is in the source"],
    ["second harmonic", { thirdPercent: 0.8, secondPercent: 1.1 }, "magnetised, or leaking direct current"],
    ["falls faster than tape", { fallsDbPerDb: 5 }, "clipping, not tape"],
    ["bias low", { biasErrorDb: -2 }, "under-biased"],
    [
      "bias right by flatness, low by over-bias: the amplifier is not accused",
      { overBias: { errorDb: -2, uncertaintyDb: 0.6 }, others: [{ name: "B", thirdPercent: 2.3 }] },
      "under-biased, and the record equaliser hides it",
    ],
    [
      "a little above its limit, with bias known to no better than that: the amplifier is not accused",
      { thirdPercent: 1.2, biasUncertaintyDb: 0.9, others: [{ name: "B", thirdPercent: 1.1 }] },
      "bias at the low end of what is known of it",
    ],
    [
      "far above what such a bias makes",
      { biasUncertaintyDb: 0.9, others: [{ name: "B", thirdPercent: 2.3 }] },
      "record amplifier",
    ],
    [
      "set by flatness, and over-bias not heard: the amplifier is not accused",
      { overBias: "not known", others: [{ name: "B", thirdPercent: 2.3 }] },
      "under-biased, or not: flatness alone does not tell",
    ],
    [
      "set by flatness, and over-bias heard too roughly to tell",
      { overBias: { errorDb: 0, uncertaintyDb: 1.5 }, others: [{ name: "B", thirdPercent: 2.3 }] },
      "under-biased, or not: flatness alone does not tell",
    ],
    [
      "right by flatness and by over-bias",
      { overBias: { errorDb: 0.1, uncertaintyDb: 0.6 }, others: [{ name: "B", thirdPercent: 2.3 }] },
      "record amplifier",
    ],
    [
      "a little above its limit, recorded a little loud: the amplifier is not accused",
      {
        thirdPercent: 1.15,
        recordLevel: { errorDb: 0.5, uncertaintyDb: 0.2 },
        others: [{ name: "B", thirdPercent: 1.1 }],
      },
      "recorded louder than 0",
    ],
    [
      "record level not set yet: the amplifier is not accused",
      { recordLevel: null, others: [{ name: "B", thirdPercent: 2.3 }] },
      "record level is not known",
    ],
    [
      "far above what such a level makes",
      { recordLevel: { errorDb: 0.5, uncertaintyDb: 0.2 }, others: [{ name: "B", thirdPercent: 2.3 }] },
      "record amplifier",
    ],
    ["on one tape only", { others: [{ name: "B", thirdPercent: 0.7 }] }, "this tape's setting"],
    ["alike on every tape", { others: [{ name: "B", thirdPercent: 2.3 }] }, "record amplifier"],
    ["nothing else known", { biasErrorDb: null }, "cannot be told from this"],
  ])("%s", (_, fields, name) => expect(seen(fields)[0]).toBe(name));

  it("nothing is said of a machine within its limit, nor of what noise hides", () => {
    expect(seen({ thirdPercent: 0.8 })).toEqual([]);
    expect(seen({ thirdPercent: null })).toEqual([]);
  });

  it("bias is raised by what its tolerance leaves, and not where nothing is left", () => {
    const low = { thirdPercent: 1.1, biasErrorDb: 0.1, limitPercent: 1 };
    const [raised] = causes({ ...low, biasUncertaintyDb: 0.6 });
    expect(raised.raisesBiasDb).toBeCloseTo(0.3);
    expect(raised.tryFirst).toMatch(/^Raise bias by 0\.3 dB/);
    const [left] = causes({ ...low, biasUncertaintyDb: 0.85 });
    expect(left.raisesBiasDb).toBeUndefined();
    expect(left.tryFirst).toMatch(/one more place/);
  });

  it("two causes are both named", () => {
    expect(seen({ biasErrorDb: -2, secondPercent: 2 })).toEqual([
      "magnetised, or leaking direct current",
      "under-biased",
    ]);
  });
});

describe("what a record response means", () => {
  const curve = (treble: number, top = treble) =>
    [100, 315, 1000, 4000, 8000, 10_000, 14_000, 16_000].map((frequencyHz) => ({
      frequencyHz,
      levelDb: frequencyHz > 13_000 ? top : frequencyHz > 7000 ? treble : 0,
      spreadDb: 0,
    }));
  const names = (treble: number, biasErrorDb: number | null, top?: number) =>
    explainRecordResponse({ points: curve(treble, top), limitDb: 3, biasErrorDb }).map(({ name }) => name);

  it.each<[string, number, number | null, string]>([
    ["bright and under-biased", 3, -1.5, "bias too low"],
    ["dull and over-biased", -3, 1.5, "bias too high"],
    ["bright with bias right", 3, 0.1, "record equaliser"],
    ["dull though bias is low", -3, -1.5, "record equaliser"],
    ["bias not set yet", -3, null, "bias, equaliser or tape: cannot be told from this"],
  ])("%s", (_, treble, biasErrorDb, name) => expect(names(treble, biasErrorDb)).toEqual([name]));

  it("a knee at the top is the head or the tape; a flat one is nothing", () => {
    expect(names(0, 0, -6)).toEqual(["a knee at the top"]);
    expect(names(0.5, 0)).toEqual([]);
  });
});
