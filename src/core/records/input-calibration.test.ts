import { expect, it } from "vitest";
import { clockFrom, clockIsKnown, fullScaleDbu } from "./input-calibration";
import { speedUncertainty } from "@/core/judging/uncertainty";

it.each([
  ["a clock 100 ppm fast reads a true tone 100 ppm low", -0.01, 100.01],
  ["a clock that is right", 0, 0],
  ["a clock 40 ppm slow reads high", 0.004, -39.998],
])("%s", (_, errorPercent, ppm) => {
  const clock = clockFrom({ errorPercent, uncertaintyPercent: 0.00002 }, 1);
  expect(clock.ppm).toBeCloseTo(ppm, 2);
  expect(clock.uncertaintyPpm).toBeCloseTo(Math.hypot(0.2, 1), 6);
});

it.each([
  ["a tone that was heard for a while, of a locked generator", 0.0003, 1, true],
  ["the same tone that has just begun again", 0.0048, 1, false],
  ["a frequency that is known to 20 ppm, heard as closely", 0.002, 20, true],
  ["a frequency that is known no better than a clock nobody compared", 0.0001, 50, false],
])("%s", (_, uncertaintyPercent, referencePpm, known) => {
  expect(clockIsKnown({ errorPercent: -0.01, uncertaintyPercent }, referencePpm)).toBe(known);
});

it("0.775 V is 0 dBu: a sine of it at −12 dBFS puts full scale at +12 dBu", () => {
  expect(fullScaleDbu(Math.sqrt(0.6), -12 - 10 * Math.log10(2))).toBeCloseTo(12, 9);
});

it("a calibrated clock takes its share of doubt out of a speed reading", () => {
  expect(speedUncertainty(0.001, 0)).toBeCloseTo(Math.hypot(0.001, 0.005), 9);
  expect(speedUncertainty(0.001, 0, 0.0001)).toBeCloseTo(Math.hypot(0.001, 0.0001), 9);
});
