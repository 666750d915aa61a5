import { describe, expect, it } from "vitest";
import { equaliserRemedy } from "./equaliser-remedy";

describe("a resistor for a time constant", () => {
  it("too long: in parallel, the nearest value there is, and what it makes of it", () => {
    const remedy = equaliserRemedy(12_000, 156, 120)!;
    expect(remedy.kind).toBe("parallel");
    expect(remedy.partOhms).toBeCloseTo(40_000, 3);
    expect(remedy.nearestOhms).toBe(39_000);
    expect(remedy.resultMicroseconds).toBeCloseTo((156 * 39) / 51, 9);
  });
  it("too short: in series", () => {
    expect(equaliserRemedy(10_000, 100, 120)).toMatchObject({ kind: "series", nearestOhms: 2200 });
  });
  it("right already: nothing; no resistor at all is refused", () => {
    expect(equaliserRemedy(10_000, 119, 120)).toBeNull();
    expect(() => equaliserRemedy(0, 100, 120)).toThrow(RangeError);
  });
});
