import { describe, expect, it } from "vitest";
import type { JobRecords } from "@/core/records/job-records";
import type { Reading } from "@/core/records/reading";
import { aJob, aMachine, anAdjustment, aReading } from "@/testing/records";
import { DEMAGNETISE, demagnetised, demagnetisingSays } from "./demagnetised";

const hiss = (minutes: number, value: number, recordingOn = "blank"): Reading =>
  logged("noise.a", minutes, value, 0.3, recordingOn);
const second = (minutes: number, value: number): Reading =>
  logged("distortion.second", minutes, value, 0.03, "blank");

function logged(quantity: string, minutes: number, value: number, uncertainty: number, recordingOn: string) {
  const reading = aReading({ minutes, quantity, value, uncertainty });
  return { ...reading, context: { ...reading.context, channel: "left", recordingOn } };
}

/** Demagnetised in the tenth minute, and what else was done in those. */
function of(readings: Reading[], others: number[] = [], done = true) {
  const records: JobRecords = {
    job: aJob(),
    machine: aMachine(),
    readings,
    adjustments: [
      ...(done
        ? [anAdjustment({ minutes: 10, station: "distortion", adjusterId: DEMAGNETISE, turns: null })]
        : []),
      ...others.map((minutes) => anAdjustment({ minutes, station: "bias", adjusterId: "bias-l" })),
    ],
  };
  const found = demagnetised(records);
  return { found, says: demagnetisingSays(found), of: found.rows.map((row) => row.says) };
}

describe("demagnetising, before and after", () => {
  it("what fell by more than both may be off by was magnetised", () => {
    const { of: says, found } = of([hiss(5, -50), second(6, 1.4), hiss(12, -53.5), second(13, 0.3)]);
    expect(says).toEqual(["fell", "fell"]);
    expect(found.rows.map(({ before, after }) => [before?.value, after?.value])).toEqual([
      [-50, -53.5],
      [1.4, 0.3],
    ]);
  });

  it("a harmonic that went down into the noise was measured all the same, and tells nothing by itself", () => {
    const third = (minutes: number) => logged("distortion.third", minutes, 0.8, 0.02, "blank");
    const { found } = of([third(6), second(6, 1.4), third(13)]);
    const [, row] = found.rows;
    expect([row.before?.value, row.after, row.says]).toEqual([1.4, null, null]);
    expect(row.inNoise).toEqual({ before: false, after: true });
    expect(of([third(6)]).found.rows[1].inNoise).toEqual({ before: true, after: false });
  });

  it("what lies within what both may be off by says nothing of the heads", () => {
    expect(of([hiss(5, -53.4), hiss(12, -53.7)]).says).toMatch(/hardly magnetised/);
  });

  it("what rose is told as a tool that was switched off too near", () => {
    expect(of([hiss(5, -53.4), hiss(12, -51)]).says).toMatch(/draw it off slowly/);
  });

  it("the last before and the first after count", () => {
    const { found } = of([hiss(2, -40), hiss(5, -50), hiss(12, -53), hiss(20, -56)]);
    expect(found.rows[0]).toMatchObject({ before: { value: -50 }, after: { value: -53 } });
  });

  it("nothing is concluded where something else was turned in between", () => {
    expect(of([hiss(5, -50), hiss(12, -53)], [11]).says).toMatch(/cannot be told/);
    // before the one and after the other it does not matter
    expect(of([hiss(5, -50), hiss(12, -53)], [1, 30]).of[0]).toBe("fell");
  });

  it("another blank tape is not compared with", () => {
    expect(of([hiss(5, -50), hiss(12, -53, "another")]).says).toBeNull();
    expect(of([hiss(5, -50), hiss(12, -51, "another"), hiss(15, -53)]).found.rows[0].after?.value).toBe(-53);
  });

  it("says nothing before it was done, or with one side of it missing", () => {
    expect(of([hiss(5, -50)], [], false).says).toBeNull();
    expect(of([hiss(5, -50)]).says).toBeNull();
    expect(of([]).found.rows.map(({ channel }) => channel)).toEqual(["", ""]);
  });
});
