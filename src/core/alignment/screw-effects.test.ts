import { describe, expect, it } from "vitest";
import type { JobRecords } from "@/core/records/job-records";
import { aJob, aMachine, anAdjustment, aReading } from "@/testing/records";
import { screwEffects } from "./screw-effects";

/** A job in which a speed screw of so much a turn was turned by these amounts, read before and after each. */
function job(id: string, percentPerTurn: number, turns: number[], error = -1.6): JobRecords {
  const at = (minutes: number, value: number) =>
    aReading({ jobId: id, minutes, value, uncertainty: 0.01, phase: "working" });
  let now = error;
  const readings = [at(0, now)];
  const adjustments = turns.map((one, i) => {
    now += percentPerTurn * one;
    readings.push(at(2 * i + 2, now));
    return anAdjustment({ jobId: id, minutes: 2 * i + 1, turns: one });
  });
  return { job: aJob({ id }), machine: aMachine(), readings, adjustments };
}

describe("what the screws of a machine do", () => {
  it("over two jobs: from the least to the most, and how many turns it rests on", () => {
    const [effect, ...others] = screwEffects([job("a", 3, [0.25, 0.25]), job("b", 3.4, [0.25, 0.2, 0.1])]);
    expect(others).toEqual([]);
    expect(effect).toMatchObject({
      adjusterId: "speed",
      quantity: "speedError",
      unit: "%",
      jobs: 2,
      turns: 5,
    });
    expect(effect.from).toBeGreaterThan(2.7);
    expect(effect.from).toBeLessThan(3.3);
    expect(effect.to).toBeGreaterThan(effect.from);
    expect(effect.to).toBeLessThan(3.8);
  });

  it("says nothing of a screw that was never turned, or did nothing", () => {
    expect(screwEffects([job("a", 3, [])])).toEqual([]);
    expect(screwEffects([job("a", 0, [0.25])])).toEqual([]);
    expect(screwEffects([])).toEqual([]);
  });
});
