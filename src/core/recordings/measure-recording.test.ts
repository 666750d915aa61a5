import { describe, expect, it } from "vitest";
import { soundInMemory } from "@/core/formats/sound-file";
import { measureRecording } from "./measure-recording";

const RATE = 24_000;
const DEPTH_DB = 14;

/** A tone of both channels that is weaker for 20 ms at some places of each. */
function worn(seconds: number, hz: number, places: readonly [number[], number[]]) {
  const channels = places.map((at) =>
    Float32Array.from({ length: seconds * RATE }, (_, i) => {
      const t = i / RATE;
      const dips = at.some((from) => t >= from && t < from + 0.02);
      return 0.2 * 10 ** (dips ? -DEPTH_DB / 20 : 0) * Math.sin(2 * Math.PI * hz * t);
    }),
  );
  return measureRecording(soundInMemory(channels, RATE), { tape: null, sequences: [] });
}

describe("drop-outs of a steady tone in a recording", () => {
  it("are counted in each channel", async () => {
    const report = await worn(16, 3150, [
      [3, 6.5, 11],
      [3, 12.2],
    ]);
    const [{ dropOuts, what }] = report!.stretches;
    expect(report!.stretches).toHaveLength(1);
    expect(what).toBe("tone near 3150 Hz");
    expect(dropOuts!.map(({ channel, events }) => [channel, events.length])).toEqual([
      ["left", 3],
      ["right", 2],
    ]);
    for (const { events, seconds } of dropOuts!) {
      expect(seconds).toBeGreaterThan(15);
      for (const { depthDb } of events) expect(Math.abs(depthDb - DEPTH_DB)).toBeLessThan(1);
    }
  });

  it.each([
    ["too short", 6, 3150],
    ["too low", 12, 400],
  ])("cannot be counted in a tone that is %s", async (_, seconds, hz) => {
    const report = await worn(seconds, hz, [[3], []]);
    expect(report!.stretches).toHaveLength(1);
    expect(report!.stretches[0].dropOuts).toBeNull();
  });
});
