import { describe, expect, it } from "vitest";
import type { Reading } from "@/core/records/reading";
import { aReading } from "@/testing/records";
import { eraseCauses, erasedBefore, secondPassCauses, type ErasedBefore } from "./erase-causes";

const both = (left: number, right: number) => [
  { channel: "left", db: left },
  { channel: "right", db: right },
];
const CHROME = [{ name: "chrome", db: 66 }];

describe("what a short erase depth usually means", () => {
  const NOTHING: ErasedBefore = { others: [], beforeDb: null, otherWayDb: null };
  it.each<[string, ReturnType<typeof both>, Partial<ErasedBefore>, RegExp | null]>([
    ["deep enough", both(66, 64), { others: CHROME }, null],
    ["one channel", both(66, 44), {}, /right channel is 22 dB worse.*erase head/],
    ["this tape alone", both(44, 46), { others: CHROME }, /On chrome.*too strong/],
    [
      "this tape was well before",
      both(44, 46),
      { others: CHROME, beforeDb: 66 },
      /It was 66 dB before.*oscillator/,
    ],
    [
      "every tape",
      both(44, 46),
      { others: [{ name: "chrome", db: 40 }] },
      /^Both channels alike.*oscillator/,
    ],
    [
      "this way alone",
      both(44, 46),
      { otherWayDb: 66 },
      /^The other way .* 66 dB, so the oscillator gives enough/,
    ],
    [
      "this way alone, on another tape not",
      both(44, 46),
      { others: CHROME, otherWayDb: 66 },
      /^The other way/,
    ],
    ["both ways", both(44, 46), { otherWayDb: 45 }, /^Both channels alike.*oscillator/],
  ])("%s", (_, channels, before, says) => {
    const causes = eraseCauses(channels, { ...NOTHING, ...before }, 60);
    if (says === null) expect(causes).toEqual([]);
    else {
      expect(causes).toHaveLength(1);
      expect(causes[0]).toMatch(says);
    }
  });

  it("is held against what was logged the same way, and the other way apart", () => {
    const logged = (value: number, context: Pick<Reading["context"], "recordingOn" | "side">) =>
      ["left", "right"].map((channel, c) =>
        aReading({
          id: `${value}${c}`,
          station: "erase",
          quantity: "erase.depth",
          value: value + c,
          context: { channel, tapeId: "t1", seconds: 5, nominalHz: 1000, speedCmPerS: 4.76, ...context },
        }),
      );
    const readings = [
      ...logged(66, { recordingOn: "plain", side: "A" }),
      ...logged(44, { recordingOn: "plain", side: "B" }),
      ...logged(61, { recordingOn: "chrome", side: "A" }),
    ];
    const blanks = ["plain", "chrome"].map((id) => ({ id, name: id }));
    const of = (recordingOn: string, side?: "A" | "B", speedCmPerS = 4.76) =>
      erasedBefore(readings, blanks, { recordingOn, side }, 2, speedCmPerS);
    // at another speed nothing was logged
    expect(of("plain", "B", 9.53)).toEqual({ others: [], beforeDb: null, otherWayDb: null });
    expect(of("plain", "B")).toEqual({ others: [], beforeDb: 44, otherWayDb: 66 });
    expect(of("plain", "A")).toEqual({ others: [{ name: "chrome", db: 61 }], beforeDb: 66, otherWayDb: 44 });
    expect(of("chrome", "B")).toEqual({
      others: [{ name: "plain", db: 44 }],
      beforeDb: null,
      otherWayDb: 61,
    });
    expect(of("plain")).toEqual({ others: [], beforeDb: null, otherWayDb: null });
  });
});

describe("what a second pass over the same place tells", () => {
  it.each<[string, number, number, number, number, RegExp[]]>([
    ["nothing where both are deep enough", 66, 90, 64, 90, []],
    ["as far again: weak", 44, 86, 43, 85, [/as far again on both channels.*weak/]],
    ["no further: beside the gap", 44, 45, 66, 90, [/nothing more off on the left channel.*height/]],
    ["one each", 44, 45, 40, 78, [/left channel.*height/, /right channel.*weak/]],
    ["between the two nothing is said", 44, 50, 44, 50, []],
  ])("%s", (_, left, leftTwice, right, rightTwice, says) => {
    const causes = secondPassCauses(
      [
        { channel: "left", once: left, twice: leftTwice },
        { channel: "right", once: right, twice: rightTwice },
      ],
      60,
    );
    expect(causes).toHaveLength(says.length);
    causes.forEach((cause, i) => expect(cause).toMatch(says[i]));
  });
});
