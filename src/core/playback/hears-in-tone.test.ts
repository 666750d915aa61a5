import { describe, expect, it } from "vitest";
import { SeededRandom } from "@/core/dsp/seeded-random";
import { timingWander } from "@/core/measure/tone-wander";
import { hearsInTone } from "./source-and-tape";
import { sampled } from "@/core/dsp/sampled";

const RATE = 48_000;
const SECONDS = 2.5;

/** A tone late and early by wow and flutter of several rates, in noise and hum, dB re the tone. */
function tone(hz: number, flutterPercent: number, noiseDb: number, humDb: number): Float64Array {
  const random = new SeededRandom(7);
  const parts = [0.55, 1.1, 3.7, 8.3].map((rateHz) => ({ rateHz, from: 2 * Math.PI * random.uniform() }));
  const [noise, hum] = [10 ** (noiseDb / 20), 10 ** (humDb / 20)];
  return sampled(SECONDS * RATE, (i) => {
    const t = i / RATE;
    const late = parts.reduce((sum, { rateHz, from }) => {
      const turn = 2 * Math.PI * rateHz;
      return sum + (flutterPercent / 200 / turn) * Math.sin(turn * t + from);
    }, 0);
    const mains = Math.sin(100 * Math.PI * t) + 0.3 * Math.sin(300 * Math.PI * t);
    return Math.sin(2 * Math.PI * hz * (t + late)) + noise * random.normal() + hum * mains;
  });
}

describe("a whole tone, off the source or off the tape", () => {
  it.each([315, 400, 1000, 10_000].flatMap((hz) => [0, 0.01, 0.05, 0.3].map((flutter) => [hz, flutter])))(
    "%i Hz with ±%f % is told, in hiss and in strong hum",
    (hz, flutter) => {
      for (const [noiseDb, humDb] of [
        [-60, -60],
        [-45, -40],
        [-28, -80],
      ])
        expect(hearsInTone(timingWander(tone(hz, flutter, noiseDb, humDb), RATE, hz))).toBe(
          flutter === 0 ? "source" : "tape",
        );
    },
  );

  it("another clock than the one that samples it does not make a tape of a source", () => {
    expect(hearsInTone(timingWander(tone(1000.2, 0, -60, -60), RATE, 1000))).toBe("source");
  });

  it("too short, or wavering too much for the one and too little for the other: unclear", () => {
    expect(hearsInTone(timingWander(tone(400, 0.05, -60, -60).subarray(0, 12_000), RATE, 400))).toBe(
      "unclear",
    );
    expect(hearsInTone(1.9)).toBe("unclear");
  });
});
