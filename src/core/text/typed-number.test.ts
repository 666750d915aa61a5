import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fixed, THIN_SPACE } from "./number-text";
import { typedNumber, typedNumbers, typedOrNothing } from "./typed-number";
import { UNITS, unitAfter } from "./units";

describe("numbers as they are typed", () => {
  it.each([
    ["0,12", 0.12],
    [" −1.62 % ", -1.62],
    ["+3", 3],
    ["-0.5dB", -0.5],
    ["3150 Hz", 3150],
    ["19.05 cm/s", 19.05],
    ["12.5 kΩ", 12.5],
    [".5", 0.5],
    ["1e-3", 0.001],
  ])("%s is %f", (text, value) => {
    expect(typedNumber(text)).toBeCloseTo(value, 12);
  });

  it.each(["", "  ", "abc", "1,2,3", "--1", "1.2.3", "% 5", "5 apples"])("“%s” is none", (text) => {
    expect(typedNumber(text)).toBeNaN();
  });

  it("takes whatever Unzel itself prints, in every unit", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -999, max: 999, noNaN: true }),
        fc.integer({ min: 0, max: 3 }),
        fc.constantFrom(...UNITS),
        (value, decimals, unit) => {
          const printed = `${fixed(value, decimals, true)}${unitAfter(unit)}`;
          expect(typedNumber(printed)).toBeCloseTo(Number(value.toFixed(decimals)), 9);
          expect(typedNumber(printed.replace(".", ",").replace(THIN_SPACE, " "))).toBe(typedNumber(printed));
        },
      ),
    );
  });

  it("an empty field is nothing, not nought", () => {
    expect(typedOrNothing(undefined)).toBeUndefined();
    expect(typedOrNothing(" ")).toBeUndefined();
    expect(typedNumbers({ a: "1,5", b: "" })).toEqual({ a: 1.5, b: NaN });
  });
});
