import { describe, expect, it } from "vitest";
import { measuredChange } from "./belt-change";

const minute = (n: number) => new Date(Date.UTC(2026, 10, 20, 10, n)).toISOString();
const speed = (n: number, value: number) => ({ at: minute(n), value, uncertainty: 0.03 });
const belt = { at: minute(10) };

describe("what a new belt did to the speed", () => {
  it("is the first error after it less the last one before", () => {
    const change = measuredChange(
      belt,
      [speed(1, -3), speed(5, -1.6), speed(12, 0.4), speed(14, 0.1)],
      [minute(13)],
    );
    expect(change!.percent).toBeCloseTo(2, 10);
    expect(change!.uncertaintyPercent).toBeCloseTo(0.0424, 3);
  });

  it.each([
    ["not measured before", [speed(12, 0)], []],
    ["not measured since", [speed(5, 0)], []],
    ["something was turned before it was measured", [speed(5, -1.6), speed(14, 0)], [minute(12)]],
    ["something was turned after it was measured last", [speed(5, -1.6), speed(14, 0)], [minute(7)]],
  ])("%s: not told", (_, speeds, turned) => {
    expect(measuredChange(belt, speeds, turned)).toBeNull();
  });
});
