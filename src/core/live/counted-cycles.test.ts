import { beforeEach, describe, expect, it } from "vitest";
import type { TonePair } from "@/core/measure/tone-pair";
import { CountedCycles } from "./counted-cycles";

/** A tone whose phase goes so, a tenth of a second each. @param levelsDbfs of both channels likewise */
function tone(degrees: number[], levelsDbfs = degrees.map(() => -10)): TonePair {
  const level = { levelDbfs: -10, spreadDb: 0, uncertaintyDb: 0.01, clipped: false };
  const channel = { ...level, track: Float64Array.from(levelsDbfs) };
  const track = Float64Array.from(degrees, (at) => at - 360 * Math.round(at / 360));
  return {
    frequencyHz: 10_000,
    seconds: degrees.length / 10,
    channels: [channel, channel],
    pair: {
      phaseDegrees: track[0],
      spreadDegrees: 0,
      coherence: 1,
      uncertaintyDegrees: 0.1,
      isMono: false,
      track,
    },
  };
}
const heard = (index: number, phaseDegrees: number) =>
  ({ index, phaseDegrees, measuredHz: 10_000 }) as Parameters<CountedCycles["learn"]>[0]["tones"][number];

describe("whole cycles of a tone", () => {
  let cycles: CountedCycles;
  beforeEach(() => {
    cycles = new CountedCycles();
    cycles.learn({ tones: [heard(1, 20), heard(2, 350)], delaySeconds: null }, null);
  });

  it("are carried along over the turn of a circle, from where they were counted", () => {
    expect(cycles.follow(2, tone([355, 361, 366, 372]), 4)).toBe("followed");
    expect(cycles.of(2)).toBeCloseTo(372, 9);
    expect(cycles.of(1)).toBe(20);
  });

  it("are of another setting than the rest once they have gone far, little by little", () => {
    expect(cycles.follow(2, tone([360, 370]), 2)).toBe("followed");
    expect(cycles.follow(2, tone([380, 390]), 2)).toBe("turned");
    expect(cycles.of(2)).toBeCloseTo(390, 9);
  });

  it("are lost, of all tones, in a step that may have been one the other way round", () => {
    expect(cycles.follow(2, tone([350, 350 + 120]), 2)).toBe("lost");
    expect(cycles.of(1)).toBeUndefined();
    expect(cycles.of(2)).toBeUndefined();
  });

  it("are followed in what is new of the track alone, and not where the tone is gone", () => {
    expect(cycles.follow(2, tone([170, 352, 354]), 2)).toBe("followed");
    expect(cycles.of(2)).toBeCloseTo(354, 9);
    expect(cycles.follow(2, tone([354, 356, 170, 358], [-10, -10, -60, -10]), 3)).toBe("followed");
    expect(cycles.of(2)).toBeCloseTo(358, 9);
  });

  it("of a tone that was followed stay when the ladder is heard anew", () => {
    cycles.follow(2, tone([356]), 1);
    cycles.learn({ tones: [heard(1, 25), heard(2, -10)], delaySeconds: null }, 2);
    expect([cycles.of(1), cycles.of(2)]).toEqual([25, 356]);
  });

  it("go with the tone to the band that it is taken for now, and from the other unless that still counts", () => {
    cycles.passOn(2, 3, true);
    expect([cycles.of(2), cycles.of(3)]).toEqual([350, 350]);
    cycles.passOn(1, 4, false);
    expect([cycles.of(1), cycles.of(4)]).toEqual([undefined, 20]);
  });

  it("that stay after a turn are those of the tone that plays", () => {
    cycles.keepOnly(2);
    expect([cycles.of(1), cycles.of(2)]).toEqual([undefined, 350]);
  });
});
