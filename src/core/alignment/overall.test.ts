import { describe, expect, it } from "vitest";
import type { JobRecords } from "@/core/records/job-records";
import { aJob, aMachine, aReading } from "@/testing/records";
import { verdictOf, worstVerdict } from "@/core/judging/verdict";
import { MEASURING } from "./registry";
import { sheetOf } from "./sheet";

const only = (...stations: string[]) => MEASURING.map(({ id }) => id).filter((id) => !stations.includes(id));
const overall = (leftOut: string[], fields: Partial<JobRecords>) =>
  sheetOf({ job: aJob({ leftOut }), machine: aMachine(), readings: [], adjustments: [], ...fields });
const flutter = (meter: string, value: number) =>
  aReading({
    station: "flutter",
    quantity: `flutter.weighted.${meter}`,
    value,
    uncertainty: 0.002,
    phase: "as left",
  });

describe("what a whole job comes to", () => {
  it.each<[string, string[], Partial<JobRecords>, string]>([
    ["with every measuring station left out", only(), {}, "nothing measured"],
    [
      "9 % flutter on a machine without a limit for its meter",
      only("flutter"),
      { machine: aMachine({ flutterMeter: "rms" }), readings: [flutter("rms", 9)] },
      "no limit",
    ],
    ["a reading that passes", only("flutter"), { readings: [flutter("peak", 0.03)] }, "pass"],
    ["one that fails", only("flutter"), { readings: [flutter("peak", 9)] }, "fail"],
    ["as found alone", only("speed"), { readings: [aReading({ value: 0.01 })] }, "unfinished"],
    [
      "a ± wider than the limit",
      only("speed"),
      { readings: [aReading({ value: 0.01, uncertainty: 0.5, phase: "as left" })] },
      "unfinished",
    ],
  ])("%s", (_, leftOut, fields, says) => {
    expect(overall(leftOut, fields).overall).toBe(says);
  });

  it("names what has no limit", () => {
    const machine = aMachine({ flutterMeter: "rms" });
    expect(overall(only("flutter"), { machine, readings: [flutter("rms", 9)] }).withoutLimit).toEqual([
      "Weighted RMS flutter",
    ]);
  });
});

describe("a number whose ± is wider than its limit", () => {
  it.each([
    [79.2, 180.3, 30],
    [0, 31, 30],
    [NaN, 1, 30],
    [1, NaN, 30],
  ])("%f ± %f against ±%f cannot be told", (value, uncertainty, limit) => {
    expect(verdictOf(value, uncertainty, limit)).toBe("cannot be told");
  });
  it("is worse than close, and a failure is worse than that", () => {
    expect(worstVerdict(["pass", "cannot be told", "close"])).toBe("cannot be told");
    expect(worstVerdict(["cannot be told", "fail"])).toBe("fail");
    expect(worstVerdict([])).toBeNull();
  });
});
