import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { sampled } from "@/core/dsp/sampled";
import { largestDifference } from "@/testing/largest-difference";
import { HalvedSound, isEnoughHalved } from "./halved-sound";
import { SoundRooms } from "./sound-rooms";

const RATE = 96_000;
const LENGTH = 6000;
const HZ = 21_000;
const tone = (seconds: number, phase: number) => Math.sin(2 * Math.PI * HZ * seconds + phase);
const whole = [0, 1].map((phase) => sampled(LENGTH, (i) => tone(i / RATE, phase)));

describe("sound that is kept at half its rate", () => {
  it("is what lay between its ends, at the times that it tells, however it was cut into blocks", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -500, max: 2500 }),
        fc.array(fc.integer({ min: 1, max: 2500 }), { minLength: 1, maxLength: 8 }),
        (from, cuts) => {
          const ends = { fromSeconds: from / RATE, toSeconds: 5000 / RATE };
          const kept = new HalvedSound(RATE, 2, ends, new SoundRooms());
          let at = 0;
          for (const cut of cuts) {
            kept.push(
              whole.map((x) => x.subarray(at, at + cut)),
              at,
            );
            at = Math.min(LENGTH, at + cut);
          }
          kept.measure((channels, { sampleRateHz, startSeconds }) => {
            expect(sampleRateHz).toBe(RATE / 2);
            channels.forEach((x, c) => {
              const lay = sampled(x.length, (i) => tone(startSeconds + i / sampleRateHz, c));
              expect(largestDifference(x, lay)).toBeLessThan(1e-4);
            });
            const heard = Math.max(0, Math.min(5000, at) - Math.max(0, from));
            if (heard > 500) expect(channels[0].length).toBeGreaterThan(heard / 2 - 100);
          });
        },
      ),
      { numRuns: 40 },
    );
  });

  it("holds nothing of what half the rate cannot hold", () => {
    expect(isEnoughHalved(HZ, RATE)).toBe(true);
    expect(isEnoughHalved(22_000, RATE)).toBe(false);
    const kept = new HalvedSound(RATE, 1, { fromSeconds: 0, toSeconds: LENGTH / RATE }, new SoundRooms());
    kept.push([sampled(LENGTH, (i) => Math.sin((2 * Math.PI * 27_000 * i) / RATE))], 0);
    const loudest = kept.measure(([x]) => x.reduce((most, v) => Math.max(most, Math.abs(v)), 0));
    expect(loudest).toBeLessThan(1e-4);
  });
});
