import { describe, expect, it } from "vitest";
import { spanFor } from "@/ui/rule";
import { decimalsFor, fixed, withUncertainty } from "./number-text";

describe("numbers as they are read", () => {
  it.each([
    [-1.62, 2, false, "−1.62"],
    [1.62, 2, true, "+1.62"],
    [-0.004, 2, true, "0.00"],
    [0, 1, true, "0.0"],
  ])("%f with %i decimals", (value, decimals, plus, text) => {
    expect(fixed(value, decimals, plus)).toBe(text);
  });

  it.each([
    [0.5, 1],
    [0.13, 2],
    [0.03, 2],
    [0.021, 3],
    [0.0005, 3],
    [7, 1],
    [0, 3],
  ])("an uncertainty of %f leaves %i decimals", (uncertainty, decimals) => {
    expect(decimalsFor(uncertainty)).toBe(decimals);
  });

  it("prints no digit that the reading does not have", () => {
    expect(withUncertainty(-1.6234, 0.034, "%")).toBe("−1.62\u2009±\u20090.03\u2009%");
    expect(withUncertainty(0.1206, 0.0025, "%")).toBe("0.121\u2009±\u20090.003\u2009%");
    expect(withUncertainty(1, 1, "%", true)).toBe("+1.0\u2009±\u20091.0\u2009%");
  });
});

it.each([
  [-1.62, 0.2, 2],
  [0.05, 0.2, 0.5],
  [12, 0.5, 20],
  [30, 0.5, 20],
])("a reading of %f with a window of %f gets a scale of %f", (value, window, span) => {
  expect(spanFor(value, window)).toBe(span);
});
