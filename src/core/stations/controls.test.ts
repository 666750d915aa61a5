import { describe, expect, it } from "vitest";
import { stationState } from "@/core/alignment/station-state";
import type { ControlTest } from "@/core/measure/control-watch";
import type { Circumstances, Phase, Reading } from "@/core/records/reading";
import { laidBench } from "@/testing/laid-bench";
import { aJob, aMachine, anAdjustment } from "@/testing/records";
import { controlNow } from "./controls";
import { NOTHING_HEARD_YET } from "./heard";
import { level } from "./level";

const MACHINE = aMachine({ toleranceClass: "hifi" });
const test = (fields: Partial<ControlTest> = {}): ControlTest => ({
  seconds: 20,
  channels: [
    { crackles: 0, dropOuts: 0, levelDbfs: -12 },
    { crackles: 12, dropOuts: 1, levelDbfs: -12 },
  ],
  balance: { fromDb: -3, toDb: 0.5 },
  ...fields,
});
const bench = (controls: ControlTest | null, circumstances: Circumstances, readings: Reading[] = []) =>
  laidBench(
    { machine: MACHINE, readings },
    {
      heard: { ...NOTHING_HEARD_YET, source: { kind: "sound card", name: "card" }, controls },
      circumstances,
    },
  );
let next = 0;
const logged = (controls: ControlTest | null, circumstances: Circumstances, phase: Phase = "as found") =>
  level.readings(bench(controls, circumstances)).toLog({
    newId: () => `c${next++}`,
    jobId: "j1",
    channel: "both",
    tapeId: "t1",
    tapeUncertaintyPercent: 0,
    nominalHz: 315,
    speedCmPerS: 19.05,
    phase,
    at: new Date(Date.UTC(2026, 10, 20, 12, next)).toISOString(),
    source: { kind: "sound card", name: "card" },
    circumstances,
  });

describe("a control that is worked", () => {
  it.each<[string, ControlTest | null, Circumstances, RegExp]>([
    ["nothing heard", null, { control: "balance" }, /Begin/],
    ["too short", test({ seconds: 4 }), { control: "balance" }, /twelve seconds/],
    ["nobody said which", test(), { control: "" }, /which control/],
  ])("%s: nothing is logged, and what is wanted is said", (_, heard, circumstances, says) => {
    expect(logged(heard, circumstances)).toMatch(says);
    expect(controlNow(bench(heard, circumstances)).lacks).toMatch(says);
  });

  it("is logged by channel, a minute, with what a count of that many is worth", () => {
    const readings = logged(test(), { control: "balance" }) as Reading[];
    const of = (quantity: string, channel: string) =>
      readings.find((one) => one.quantity === quantity && one.context.channel === channel)!;
    expect(of("level.crackles", "left")).toMatchObject({ value: 0, uncertainty: 3 });
    expect(of("level.crackles", "right")).toMatchObject({ value: 36 });
    expect(of("level.crackles", "right").uncertainty).toBeCloseTo(3.6, 5);
    expect(of("level.dropOuts", "right")).toMatchObject({ value: 3, uncertainty: 3 });
    expect(of("level.tracking", "both").value).toBe(3);
    expect(readings.every(({ context }) => context.control === "balance")).toBe(true);
  });

  it("one that is clean settles it, whatever is turned afterwards; another control has its own", () => {
    const clean = test({
      channels: test().channels.map((one) => ({ ...one, crackles: 0, dropOuts: 0 })),
      balance: null,
    });
    const found = logged(test(), { control: "balance" }) as Reading[];
    const left = logged(clean, { control: "balance" }, "as left") as Reading[];
    const tracking = found.filter(({ quantity }) => quantity === "level.tracking");
    const state = (readings: Reading[]) =>
      stationState(
        {
          job: aJob(),
          machine: MACHINE,
          readings,
          adjustments: [anAdjustment({ minutes: 59, station: "level", adjusterId: "x" })],
        },
        level,
      );
    expect(state(left)).toBe("settled");
    expect(state([...found.filter((one) => !tracking.includes(one)), ...left])).toBe("settled");
    const other = logged(test(), { control: "output level" }, "as left") as Reading[];
    expect(state([...left, ...other])).toBe("failed");
  });
});
