import { describe, expect, it } from "vitest";
import { eraseCauses, secondPassCauses } from "./erase-causes";

const both = (left: number, right: number) => [
  { channel: "left", db: left },
  { channel: "right", db: right },
];
const CHROME = [{ name: "chrome", db: 66 }];

describe("what a short erase depth usually means", () => {
  it.each<[string, ReturnType<typeof both>, typeof CHROME, number | null, RegExp | null]>([
    ["deep enough", both(66, 64), CHROME, null, null],
    ["one channel", both(66, 44), [], null, /right channel is 22 dB worse.*erase head/],
    ["this tape alone", both(44, 46), CHROME, null, /On chrome.*too strong/],
    ["this tape was well before", both(44, 46), CHROME, 66, /It was 66 dB before.*oscillator/],
    ["every tape", both(44, 46), [{ name: "chrome", db: 40 }], null, /^Both channels alike.*oscillator/],
  ])("%s", (_, channels, others, before, says) => {
    const causes = eraseCauses(channels, others, before, 60);
    if (says === null) expect(causes).toEqual([]);
    else expect(causes[0]).toMatch(says);
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
