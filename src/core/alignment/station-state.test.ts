import { describe, expect, it } from "vitest";
import { aJob, aMachine, aReading, anAdjustment, aTape } from "@/testing/records";
import { speedTone, tapesForSpeed } from "@/core/reference/speed-tone";
import { limitFor } from "./registry";
import type { Adjustment } from "@/core/records/adjustment";
import type { Reading } from "@/core/records/reading";
import { sheetOf } from "./sheet";
import { presentStation, readingVerdict, stationState, toRepeat } from "./station-state";
import { stationById } from "@/core/alignment/registry";
import { combined, speedUncertainty } from "@/core/judging/uncertainty";
import { verdictOf } from "@/core/judging/verdict";

const flutterAt = (minutes: number, value: number, phase: Reading["phase"] = "as found") =>
  aReading({
    minutes,
    station: "flutter",
    quantity: "flutter.weighted.peak",
    value,
    uncertainty: 0.002,
    phase,
  });
const records = (readings: Reading[], adjustments: Adjustment[] = [], machine = aMachine()) => ({
  job: aJob(),
  machine,
  readings,
  adjustments,
});
const stateOf = (id: string, r: ReturnType<typeof records>) => stationState(r, stationById(id)!);

describe("verdict", () => {
  it.each([
    [0.1, 0.05, 0.2, "pass"],
    [-0.15, 0.05, 0.2, "pass"],
    [0.18, 0.05, 0.2, "close"],
    [-0.22, 0.05, 0.2, "close"],
    [0.26, 0.05, 0.2, "fail"],
  ] as const)("%f ± %f against ±%f is %s", (value, uncertainty, limit, verdict) => {
    expect(verdictOf(value, uncertainty, limit)).toBe(verdict);
  });

  it("counts in the tape and the clock as well as the measurement", () => {
    expect(speedUncertainty(0.03, 0.04)).toBeCloseTo(Math.hypot(0.03, 0.04, 0.005), 12);
    expect(combined(3, 4)).toBe(5);
  });

  it("never judges one flutter meter by a limit written in another", () => {
    const rms = aMachine({ flutterMeter: "rms" });
    expect(limitFor(rms, "flutter.weighted.peak")).toBeNull();
    expect(limitFor(rms, "flutter.weighted.rms")).toBeNull(); // the classes are written in weighted peak
    expect(limitFor({ ...rms, limits: { flutterPercent: 0.06 } }, "flutter.weighted.rms")).toBe(0.06);
    expect(readingVerdict(flutterAt(0, 5), rms)).toBeNull();
  });
});

describe("station states", () => {
  it.each<[string, Reading[], Adjustment[], string]>([
    ["blank without readings", [], [], "blank"],
    ["found once as found is taken", [aReading()], [], "found"],
    ["stale after its trimmer is turned", [aReading()], [anAdjustment({ minutes: 1 })], "stale"],
    [
      "found again with a working reading",
      [aReading(), aReading({ minutes: 2, phase: "working" })],
      [anAdjustment({ minutes: 1 })],
      "found",
    ],
    ["settled when left inside the limit", [aReading({ value: 0.05, phase: "as left" })], [], "settled"],
    ["failed when left outside it", [aReading({ value: 0.9, phase: "as left" })], [], "failed"],
  ])("speed is %s", (_, readings, adjustments, state) => {
    expect(stateOf("speed", records(readings, adjustments))).toBe(state);
  });

  it("marks flutter for repeating when the speed trimmer is turned after it was logged", () => {
    const before = records([aReading(), flutterAt(1, 0.05, "as left")]);
    expect(toRepeat(before)).toEqual([]);
    const after = { ...before, adjustments: [anAdjustment({ minutes: 2 })] };
    expect(toRepeat(after).map(({ id }) => id)).toEqual(["speed", "flutter"]);
    const repeated = { ...after, readings: [...after.readings, flutterAt(3, 0.05, "as left")] };
    expect(toRepeat(repeated).map(({ id }) => id)).toEqual(["speed"]);
  });

  it("takes back a turn that was not made", () => {
    const turn = anAdjustment({ minutes: 2 });
    const takenBack = anAdjustment({ minutes: 2, turns: 0, supersedes: turn.id });
    expect(toRepeat(records([aReading(), flutterAt(1, 0.05)], [turn, takenBack]))).toEqual([]);
  });

  it("ticks a checklist line by line", () => {
    const checks = stationById("clean")!.checks;
    const withDone = (done: string[]) => ({ ...records([]), job: aJob({ done: { clean: [...done] } }) });
    expect(stateOf("clean", withDone([]))).toBe("blank");
    expect(stateOf("clean", withDone([checks[0]]))).toBe("found");
    expect(stateOf("clean", withDone([...checks]))).toBe("settled");
  });

  it("puts the work at the first station that is not settled", () => {
    expect(presentStation(records([])).id).toBe("intake");
  });

  it("does not count a reading that a later one supersedes", () => {
    const wrong = aReading({ value: 0.9, phase: "as left" });
    const right = aReading({ value: 0.02, phase: "as left", minutes: 1, supersedes: wrong.id });
    expect(stateOf("speed", records([wrong, right]))).toBe("settled");
  });
});

describe("sheet", () => {
  const measured = records(
    [
      aReading({ value: -1.6 }),
      aReading({ minutes: 2, value: -0.4, phase: "working" }),
      aReading({ minutes: 4, value: 0.03, phase: "as left" }),
      flutterAt(5, 0.05),
      flutterAt(6, 0.04, "as left"),
    ],
    [anAdjustment({ minutes: 1 }), anAdjustment({ minutes: 3 })],
  );
  // a job about the transport alone
  const whole = { ...measured, job: aJob({ ...measured.job, leftOut: ["azimuth", "level", "response"] }) };

  it("holds the first as found and the last as left with their verdicts", () => {
    const { stations, overall } = sheetOf(whole);
    expect(stations[0].rows[0].asFound).toMatchObject({ verdict: "fail", reading: { value: -1.6 } });
    expect(stations[0].rows[0].asLeft).toMatchObject({ verdict: "pass", reading: { value: 0.03 } });
    expect(stations[0].adjustments.map(({ name }) => name)).toEqual(["SPEED 19", "SPEED 19"]);
    expect(overall).toBe("pass");
  });

  it("is unfinished while anything is stale or not left", () => {
    expect(sheetOf(records([aReading()])).overall).toBe("unfinished");
    expect(
      sheetOf({ ...whole, adjustments: [...whole.adjustments, anAdjustment({ minutes: 9 })] }).overall,
    ).toBe("unfinished");
  });

  it("says what failed", () => {
    expect(sheetOf({ ...whole, readings: [...whole.readings, flutterAt(8, 0.3, "as left")] }).overall).toBe(
      "fail",
    );
  });
});

describe("the tone of a tape", () => {
  const tone = (frequencyHz: number, seconds: number, role?: string) => ({
    kind: "tone" as const,
    frequencyHz,
    seconds,
    levelDb: 0,
    role,
  });
  it("is the band made for speed, at its certified frequency", () => {
    const tape = aTape({
      bands: [tone(1000, 900), { ...tone(3150, 30, "speed"), frequencyErrorPercent: 0.1 }],
    });
    expect(speedTone(tape)).toEqual({ frequencyHz: 3150 * 1.001, bandNumber: 2 });
  });
  it("is the longest tone where none is named, and none where there is none", () => {
    expect(speedTone(aTape({ bands: [tone(400, 10), tone(3000, 60)] }))?.bandNumber).toBe(2);
    expect(
      speedTone(aTape({ bands: [{ kind: "noise", frequencyHz: 100, seconds: 10, levelDb: 0 }] })),
    ).toBeNull();
  });
});

it("a new job is offered tapes that have a speed tone, the best known first", () => {
  const tone = aTape().bands[0];
  const tapes = [
    aTape({ id: "ladder", bands: [{ ...tone, role: "azimuth" }] }),
    aTape({ id: "home-made", making: { by: "", machine: "", howChecked: "", speedUncertaintyPercent: 1 } }),
    aTape({ id: "other-speed", speedCmPerS: 4.76 }),
    aTape({ id: "plain", frequencyUncertaintyPercent: 0.3 }),
    aTape({ id: "certified" }),
  ];
  expect(tapesForSpeed(tapes, 19.05).map(({ id }) => id)).toEqual(["certified", "plain", "home-made"]);
});
