import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { quietOf } from "./quiet";

const RATE = 48_000;
const sound = (seconds: number, at: (t: number, noise: number) => number) => {
  const random = new SeededRandom(5);
  return Float32Array.from({ length: seconds * RATE }, (_, i) => at(i / RATE, random.normal()));
};

describe("noise of a machine that plays nothing", () => {
  it("is that of its hiss, with the hum in it, and holds still", () => {
    const hiss = sound(5, (t, noise) => 1e-3 * noise + 3e-3 * Math.sin(2 * Math.PI * 50 * t));
    const quiet = quietOf([hiss, hiss], RATE)!;
    expect(quiet.steady).toBe(true);
    // hiss of −60 dB RMS within 20 kHz, and the hum
    const flat = 10 * Math.log10(2 * 1e-6 * (20_000 / 24_000) + 9e-6);
    expect(Math.abs(quiet.channels[0].noise.flatDbfs - flat)).toBeLessThan(0.3);
    expect(quiet.channels[1].hum.some(({ frequencyHz }) => Math.abs(frequencyHz - 50) < 1)).toBe(true);
  });

  it("programme does not hold still, and a scrap is too short", () => {
    const comes = sound(5, (t, noise) => (t % 2 > 1 ? 1e-2 : 1e-3) * noise);
    expect(quietOf([comes], RATE)!.steady).toBe(false);
    expect(quietOf([comes.subarray(0, 3 * RATE)], RATE)).toBeNull();
    expect(quietOf([], RATE)).toBeNull();
  });
});
