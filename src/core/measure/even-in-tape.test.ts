import { describe, expect, it } from "vitest";
import { allOf, PIECE } from "@/core/dsp/values";
import { evenInTape } from "./even-in-tape";
import { valuesWithoutTrend } from "./without-trend";

const RATE_HZ = 2000;

describe("a deviation at even steps of tape", () => {
  it("has a part that turns with the tape at one rate, however the speed drifts", () => {
    // from 2 % slow to 2 % fast, and a part that turns once in 40 mean steps of tape
    const n = 2 * PIECE + 4321;
    const deviation = new Float64Array(n);
    let passed = 0;
    for (let i = 0; i < n; i++) {
      const drift = 0.04 * (i / n - 0.5);
      deviation[i] = drift + 1e-4 * Math.sin((2 * Math.PI * passed) / 40);
      passed += 1 + drift;
    }
    const even = allOf(valuesWithoutTrend(evenInTape(deviation)));
    let [inPhase, across] = [0, 0];
    for (let k = 0; k < n; k++) {
      inPhase += (even[k] * Math.sin((2 * Math.PI * k) / 40) * 2) / n;
      across += (even[k] * Math.cos((2 * Math.PI * k) / 40) * 2) / n;
    }
    expect(Math.hypot(inPhase, across)).toBeGreaterThan(0.97e-4);
  });

  it("is the same in pieces from anywhere as all at once", () => {
    const n = 3 * PIECE + 77;
    const deviation = Float32Array.from(
      { length: n },
      (_, i) => 0.05 * Math.sin((2 * Math.PI * 0.7 * i) / RATE_HZ) + 0.02 * (i / n),
    );
    const even = evenInTape(deviation);
    const whole = allOf(even);
    for (const [from, to] of [
      [0, 10],
      [PIECE - 5, PIECE + 5],
      [2 * PIECE + 1000, n],
      [n - 3, n],
    ])
      expect(even.read(from, new Float64Array(to - from).fill(99))).toEqual(whole.slice(from, to));
    // what lies between two values of the deviation is between them
    expect(Math.max(...whole.map(Math.abs))).toBeLessThan(0.07);
  });

  it("of a steady speed is the deviation itself, and of nothing nothing", () => {
    const steady = new Float64Array(100).fill(0.01);
    for (const same of [steady, new Float64Array(0), Float64Array.of(0.3)])
      expect(allOf(evenInTape(same))).toEqual(same);
  });
});
