import { describe, expect, it } from "vitest";
import { aJob, aMachine, anAdjustment, aReading } from "@/testing/records";
import { atSpeed, speedsOf, withoutSpeed, workAt } from "./job-speeds";
import { pitchRange } from "@/core/guidance/pitch-range";
import type { Reading } from "./reading";
import { sheetOf } from "@/core/alignment/sheet";
import { otherSpeedsToDo, stationState } from "@/core/alignment/station-state";
import { MEASURING } from "@/core/alignment/registry";

const SLOW = { speedCmPerS: 19.05, tapeId: "t1" };
const FAST = { speedCmPerS: 38.1, tapeId: "t2" };
const twoSpeeds = aJob({ ...SLOW, otherSpeeds: [FAST] });
const { context } = aReading();
const at = (speedCmPerS: number, fields: Partial<Reading> & { minutes?: number } = {}) =>
  aReading({ ...fields, context: { ...context, ...fields.context, speedCmPerS } });
const records = (readings: Reading[], adjustments = [] as ReturnType<typeof anAdjustment>[]) => ({
  job: twoSpeeds,
  machine: aMachine({
    adjusters: [
      { id: "both", name: "MASTER", where: "", sets: "speed", kind: "turn" },
      { id: "fast", name: "SPEED 38", where: "", sets: "speed", kind: "turn", speedsCmPerS: [38.1] },
    ],
  }),
  readings,
  adjustments,
});
const speed = MEASURING.find(({ id }) => id === "speed")!;

describe("the speeds of a job", () => {
  it("are listed from the slowest, and work goes on at either without losing one", () => {
    expect(speedsOf(twoSpeeds)).toEqual([SLOW, FAST]);
    const moved = { ...twoSpeeds, ...workAt(twoSpeeds, FAST) };
    expect(moved.speedCmPerS).toBe(38.1);
    expect(speedsOf(moved)).toEqual([SLOW, FAST]);
    expect(speedsOf({ ...moved, ...workAt(moved, { speedCmPerS: 9.53, tapeId: "t3" }) })).toHaveLength(3);
  });

  it("can be left out, but not the last", () => {
    expect(withoutSpeed(twoSpeeds)).toEqual({ ...FAST, otherSpeeds: [] });
    expect(withoutSpeed(aJob())).toBeNull();
  });

  it("keep their readings apart, and what was turned for one of them only", () => {
    const turns = [
      anAdjustment({ adjusterId: "both", minutes: 1 }),
      anAdjustment({ adjusterId: "fast", minutes: 2 }),
    ];
    const all = records(
      [at(19.05), at(38.1), at(38.1, { context: { ...context, pitch: "fastest" } })],
      turns,
    );
    expect(atSpeed(all).readings).toEqual([all.readings[0]]);
    expect(atSpeed(all).adjustments).toEqual([turns[0]]);
    const there = atSpeed(all, 38.1);
    expect(there.readings).toEqual([all.readings[1]]);
    expect(there.adjustments).toEqual(turns);
    expect(there.job).toMatchObject(FAST);
  });

  it.each<[string, Reading[], number, string]>([
    ["nothing read", [], 0, "blank"],
    ["one speed done, the other not begun", [at(19.05, { value: 0, phase: "as left" })], 1, "found"],
    ["both done", [19.05, 38.1].map((s) => at(s, { value: 0, phase: "as left" })), 0, "settled"],
    [
      "one fails",
      [at(19.05, { value: 0, phase: "as left" }), at(38.1, { value: 3, phase: "as left" })],
      0,
      "failed",
    ],
  ])("make a station's state together: %s", (_, readings, done, state) => {
    expect(stationState(records(readings), speed)).toBe(state);
    if (done === 1) expect(otherSpeedsToDo(records(readings), speed)).toEqual([38.1]);
  });

  it("a turn that acts at one speed leaves the other's reading standing", () => {
    const left = [19.05, 38.1].map((s) => at(s, { value: 0, phase: "as left" }));
    const state = (adjusterId: string) =>
      stationState(records(left, [anAdjustment({ adjusterId, minutes: 5 })]), speed);
    expect(state("fast")).toBe("stale");
    expect(
      atSpeed(records(left, [anAdjustment({ adjusterId: "fast", minutes: 5 })]), 19.05).adjustments,
    ).toEqual([]);
  });

  it("have a part of the sheet each, with the range of the pitch control", () => {
    const sheet = sheetOf(
      records([
        at(19.05, { value: -1.6 }),
        at(38.1, { value: 0.4 }),
        at(38.1, { value: -9.8, context: { ...context, pitch: "slowest" } }),
        at(38.1, { value: 10.4, context: { ...context, pitch: "fastest" } }),
      ]),
    );
    const speeds = sheet.stations.filter(({ station }) => station.id === "speed");
    expect(speeds.map(({ speedCmPerS }) => speedCmPerS)).toEqual([19.05, 38.1]);
    expect(speeds.map(({ rows }) => rows[0].asFound?.reading.value)).toEqual([-1.6, 0.4]);
    expect(speeds.map(({ pitch }) => pitch)).toEqual([null, { slowest: -9.8, fastest: 10.4 }]);
    expect(pitchRange([], 19.05)).toBeNull();
  });
});
