import { describe, expect, it } from "vitest";
import { eraseCauses } from "./erase";

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
