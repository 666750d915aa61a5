import { describe, expect, it } from "vitest";
import { PIECE, valuesOf } from "@/core/dsp/values";
import { valuesWithoutTrend, withoutTrend } from "./without-trend";

describe("deviations from their own mean", () => {
  it("have lost what drifts straight, over more than one piece, and are re the mean carrier", () => {
    const length = PIECE + 4321;
    const wave = (i: number) => 0.001 * Math.sin((2 * Math.PI * 50 * i) / length);
    const x = Float64Array.from({ length }, (_, i) => 0.04 + (2e-3 * (i - length / 2)) / length + wave(i));
    const values = withoutTrend(x);
    const off = [...values].map((v, i) => Math.abs(v - wave(i) / 1.04));
    // a wave of fifty turns has a slope of its own, of one part in fifty
    expect(Math.max(...off)).toBeLessThan(4e-5);
    expect(Math.abs(values.reduce((a, b) => a + b, 0) / length)).toBeLessThan(1e-12);
  });

  it("are the same in pieces as all at once, and leave what they are made of alone", () => {
    const x = Float64Array.from({ length: 40 }, (_, i) => Math.sin(i * i));
    const values = valuesWithoutTrend(valuesOf(x));
    const before = [...x];
    expect([...values.read(5, new Float64Array(7).fill(99))]).toEqual([...withoutTrend(x)].slice(5, 12));
    expect([...x]).toEqual(before);
  });

  it("of two values have no slope taken out", () => {
    expect([...withoutTrend(Float64Array.of(0.1, -0.1))]).toEqual([0.1, -0.1]);
  });
});
