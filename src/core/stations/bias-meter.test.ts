import { describe, expect, it } from "vitest";
import { biasFigureSchema, type Machine } from "@/core/records/machine";
import { DEMO_BLANKS } from "@/core/practice/demo-blanks";
import { biasFigureHere, byMeter, toShow } from "./bias-meter";
import type { OnTheBench } from "./on-the-bench";

const current = biasFigureSchema.parse({ tapeType: "II", amount: 0.45, unit: "mA", acrossOhm: 10 });
const voltage = biasFigureSchema.parse({ amount: 12, unit: "V", where: "TP 3" });

describe("the maker's figure", () => {
  it("a current shows as the voltage across its resistor, and a tenth more of either is 0.83 dB", () => {
    expect(toShow(current)).toEqual({ value: 4.5, unit: "mV" });
    expect(byMeter(current, 4.95).errorDb).toBeCloseTo(20 * Math.log10(1.1), 9);
    expect(byMeter(current, 4.95).method).toMatch(/0\.45 mA.*4\.95 mV, 0\.495 mA/);
    expect(byMeter(voltage, 12).errorDb).toBe(0);
    expect(byMeter(voltage, 12).uncertaintyDb).toBeGreaterThan(0.2);
  });

  it("a current without its resistor, and nothing at all, are no figures", () => {
    expect(() => biasFigureSchema.parse({ amount: 0.45, unit: "mA" })).toThrow(/which resistor/);
    expect(() => biasFigureSchema.parse({ amount: 0, unit: "V" })).toThrow(/more than nothing/);
  });

  it("that of the tape's own type comes before the one for every type", () => {
    const here = (biasFigures: Machine["biasFigures"]) =>
      ({ machine: { biasFigures }, blanks: DEMO_BLANKS }) as unknown as OnTheBench["here"];
    const on = (figures: Machine["biasFigures"], recordingOn?: string) =>
      biasFigureHere({ here: here(figures), circumstances: { recordingOn } });
    expect(on([voltage, current], "demo-blank-bright")).toBe(current);
    expect(on([voltage, current], "demo-blank-plain")).toBe(voltage);
    expect(on([current], "demo-blank-plain")).toBeNull();
    expect(on(undefined)).toBeNull();
  });
});
