import { describe, expect, it } from "vitest";
import type { JobRecords } from "@/core/records/job-records";
import { aJob, aMachine, anAdjustment, aPart, aReading } from "@/testing/records";
import { ownerWords } from "./owner-words";

const speed = (minutes: number, value: number, phase: "as found" | "as left") =>
  aReading({ minutes, value, uncertainty: 0.02, phase });
const records = (fields: Partial<JobRecords> = {}): JobRecords => ({
  job: aJob(),
  machine: aMachine(),
  readings: [],
  adjustments: [],
  ...fields,
});

describe("a job in an owner's words", () => {
  it.each<[string, Partial<JobRecords>, RegExp]>([
    [
      "set right",
      { readings: [speed(1, -1.62, "as found"), speed(5, 0.01, "as left")] },
      /ran 1.6 % too slow. It is as it should be now/,
    ],
    ["fast", { readings: [speed(1, 2.9, "as found"), speed(5, 0.01, "as left")] }, /too fast/],
    [
      "not set right",
      { readings: [speed(1, -1.62, "as found"), speed(5, 0.9, "as left")] },
      /could not be put right altogether/,
    ],
    ["not measured as left", { readings: [speed(1, -1.62, "as found")] }, /not measured yet/],
    [
      "turned since",
      {
        readings: [speed(1, -1.62, "as found"), speed(2, 0.01, "as left")],
        adjustments: [anAdjustment({ minutes: 9 })],
      },
      /measured once more/,
    ],
  ])("%s", (_, fields, says) => {
    expect(ownerWords(records(fields)).wrong.join(" ")).toMatch(says);
  });

  it("what is left names what is not within its limits, what never came, and what is faulty", () => {
    const { left, done } = ownerWords(
      records({
        job: aJob({
          functionTrials: [
            {
              id: "t",
              at: "2026-11-20T11:00:00.000Z",
              of: "pause",
              phase: "as left",
              works: false,
              seconds: null,
              note: "loops",
            },
          ],
        }),
        readings: [speed(1, 0, "as found"), speed(5, 0.9, "as left")],
        neededParts: [aPart({ name: "tyre", state: "ordered" }), aPart({ name: "belt", state: "fitted" })],
        adjustments: [anAdjustment({ minutes: 3 })],
      }),
    );
    expect(left).toEqual([
      "Speed: not within its limits.",
      "Not fitted: tyre.",
      "Pause: faulty as left (loops).",
    ]);
    expect(done).toEqual(["Fitted: belt.", "Set anew: speed."]);
  });

  it("says the symptoms where nothing was measured, and nothing where nothing is known", () => {
    expect(ownerWords(records({ job: aJob({ symptoms: ["hum"] }) })).wrong).toEqual(["Hums."]);
    expect(ownerWords(records()).wrong).toEqual([]);
  });
});
