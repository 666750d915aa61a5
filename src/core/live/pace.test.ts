import { describe, expect, it } from "vitest";
import { BUILT_IN_TAPES } from "@/core/reference/built-in-tapes";
import { LiveListening } from "./live-listening";

const RATE = 16_000;
const STEP = RATE / 10;

/** How often figures were made anew in twelve seconds of a tone. */
function freshIn(pace: number): { checks: number; tones: number; speeds: number } {
  const live = new LiveListening({
    sampleRateHz: RATE,
    channelCount: 2,
    tape: BUILT_IN_TAPES[0],
    speedFactor: 1,
    nominalHz: 3150,
    evidenceSeconds: 0,
    pace,
  });
  const fresh = { checks: 0, tones: 0, speeds: 0 };
  for (let at = 0; at < 12 * RATE; at += STEP) {
    const tone = Float32Array.from({ length: STEP }, (_, i) =>
      Math.sin((2 * Math.PI * 3150 * (at + i)) / RATE),
    );
    live.push([tone, tone.slice()]);
    const { check, playback, speed } = live.result(true, "level");
    if (check) fresh.checks++;
    if (playback) fresh.tones++;
    if (speed) fresh.speeds++;
  }
  return fresh;
}

describe("a source that runs faster than the clock", () => {
  it("makes what takes long anew as often by the clock, and tells its speed as often as it is asked", () => {
    const [slow, fast] = [freshIn(1), freshIn(4)];
    expect(slow.checks).toBeGreaterThan(20);
    expect(fast.checks).toBeGreaterThan(4);
    expect(fast.checks).toBeLessThan(slow.checks / 3);
    expect(fast.tones).toBeLessThan(slow.tones / 3);
    expect(fast.speeds).toBe(slow.speeds);
  });
});
