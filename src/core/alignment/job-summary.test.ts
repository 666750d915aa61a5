import { describe, expect, it } from "vitest";
import type { JobRecords } from "@/core/records/job-records";
import { aJob, aMachine, anAdjustment, aPart, aReading } from "@/testing/records";
import { summaryOf } from "./job-summary";

const records = (fields: Partial<JobRecords> = {}): JobRecords => ({
  job: aJob(),
  machine: aMachine(),
  readings: [],
  adjustments: [],
  ...fields,
});

describe("a job in few words", () => {
  it("says what was out of its limits when it came, and how it left", () => {
    const summary = summaryOf(
      records({
        job: aJob({ symptoms: ["slow"] }),
        readings: [aReading({ value: -1.62, uncertainty: 0.03, phase: "as found" })],
      }),
    );
    expect(summary.found).toEqual(["speed error −1.62\u2009%"]);
    expect(summary.overall).toBe("unfinished");
  });

  it("says the complaint in plain words where nothing was measured", () => {
    expect(summaryOf(records({ job: aJob({ symptoms: ["slow", "hum"] }) })).found).toHaveLength(2);
    expect(summaryOf(records()).found).toEqual([]);
  });

  it("names what was turned or done once, without what was taken back", () => {
    const turn = (adjusterId: string, turns: number | null) => anAdjustment({ adjusterId, turns });
    const { done } = summaryOf(
      records({
        adjustments: [turn("speed", 0.2), turn("speed", -0.1), turn("belt", null), turn("gone", 0)],
      }),
    );
    expect(done).toEqual(["SPEED 19", "Replaced the belt"]);
  });

  it("tells parts that were fitted from those that never came", () => {
    const { fitted, missing } = summaryOf(
      records({
        neededParts: [aPart({ name: "belt", state: "fitted" }), aPart({ name: "tyre", state: "ordered" })],
      }),
    );
    expect(fitted).toEqual(["belt"]);
    expect(missing).toEqual(["tyre"]);
  });
});
