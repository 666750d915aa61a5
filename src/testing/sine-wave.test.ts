import { expect, it } from "vitest";
import { harmonicSum, sineWave } from "./sine-wave";

it("a sine that is turned on from sample to sample is the sine", () => {
  for (const cycles of [0, 50 / 48_000, 0.0656789, 0.4999, -0.013])
    sineWave(100_000, cycles, 0.7).forEach((value, i) => {
      if (i % 997 < 3) expect(Math.abs(value - Math.sin(2 * Math.PI * cycles * i + 0.7))).toBeLessThan(1e-9);
    });
});

it("a sum of harmonics is the sum of their sines", () => {
  const amplitudes = Array.from({ length: 20 }, (_, n) => 1 / (n + 1));
  for (const cycles of [0, 0.013, 0.25, 0.7, 12.34, -3.1]) {
    const sines = amplitudes.reduce((sum, a, n) => sum + a * Math.sin(2 * Math.PI * (n + 1) * cycles), 0);
    expect(harmonicSum(cycles, amplitudes)).toBeCloseTo(sines, 9);
  }
});
