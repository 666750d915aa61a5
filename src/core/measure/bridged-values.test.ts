import { describe, expect, it } from "vitest";
import { allOf, valuesOf } from "@/core/dsp/values";
import { bridgedValues } from "./bridged-values";

const whole = (values: ReturnType<typeof valuesOf>) => [...allOf(values)];

describe("straight lines over what cannot be read", () => {
  const x = Float64Array.from({ length: 20 }, (_, i) => i);

  it("lead from the value before to the value behind, and change nothing else", () => {
    const spoiled = x.map((v, i) => (i >= 8 && i < 12 ? 100 : v));
    const values = whole(bridgedValues(valuesOf(spoiled), [{ from: 9, to: 11, lost: false }], 1));
    values.forEach((v, i) => {
      if (i < 8 || i >= 12) expect(v).toBe(i);
      else expect(Math.abs(v - i)).toBeLessThan(1.01);
    });
    expect(Math.max(...values)).toBe(19);
  });

  it("are the same in pieces as all at once", () => {
    const values = bridgedValues(valuesOf(x.with(10, 99)), [{ from: 10, to: 11, lost: false }], 1);
    expect([...values.read(5, new Float64Array(7).fill(99))]).toEqual(whole(values).slice(5, 12));
  });

  it("are one where their edges meet, and end at the ends", () => {
    const spoiled = x.map((v, i) => (i < 3 || (i >= 8 && i < 14) || i === 19 ? NaN : v));
    const values = whole(
      bridgedValues(
        valuesOf(spoiled.with(0, 3).with(19, 18)),
        [
          { from: 11, to: 13, lost: false },
          { from: 1, to: 2, lost: false },
          { from: 9, to: 10, lost: false },
        ],
        1,
      ),
    );
    values.forEach((v, i) => expect(Number.isNaN(v), `at ${i}`).toBe(false));
  });
});
