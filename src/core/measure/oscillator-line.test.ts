import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { oscillatorLine } from "./oscillator-line";
import { sampled } from "@/core/dsp/sampled";

const sound = (rate: number, hz: number, amplitude: number, seconds = 1) => {
  const random = new SeededRandom(3);
  return sampled(
    seconds * rate,
    (i) =>
      amplitude * Math.sin((2 * Math.PI * hz * i) / rate) +
      0.1 * Math.sin((2 * Math.PI * 315 * i) / rate) +
      1e-4 * random.normal(),
  );
};

describe("bias that is left at the output", () => {
  it.each([48_300, 61_250, 80_017, 88_900])("at %i Hz is found, with its level on each channel", (hz) => {
    const line = oscillatorLine([sound(192_000, hz, 0.01), sound(192_000, hz, 0.003)], 192_000)!;
    expect(Math.abs(line.frequencyKhz - hz / 1000)).toBeLessThan(0.003);
    expect(line.levelsDbfs[0]).toBeCloseTo(-40, 0);
    expect(line.levelsDbfs[1]).toBeCloseTo(-50.5, 0);
  });

  it("is not told where the sample rate does not reach it, in noise, or from a scrap", () => {
    expect(oscillatorLine([sound(48_000, 15_000, 0.1)], 48_000)).toBeNull();
    expect(oscillatorLine([sound(192_000, 80_000, 0)], 192_000)).toBeNull();
    expect(oscillatorLine([sound(192_000, 80_000, 0.01, 1).subarray(0, 20_000)], 192_000)).toBeNull();
    expect(oscillatorLine([], 192_000)).toBeNull();
  });
});
