import { describe, expect, it } from "vitest";
import type { LadderBand } from "./azimuth-view";
import { cyclesCounted, judgedTone } from "./ladder";

const tone = (frequencyHz: number, phaseDegrees: number, index = 0): LadderBand => ({
  index,
  frequencyHz,
  measuredHz: frequencyHz,
  phaseDegrees,
  spreadDegrees: 1,
  coherence: 1,
  uncertaintyDegrees: 0.1,
  track: new Float64Array(),
});

describe("the ladder as it is shown", () => {
  it.each([
    [[1000, 8000, 10000, 12500], 10000],
    [[1000, 3150, 6300], 6300],
    [[14000, 16000], 14000],
  ])("of %j Hz azimuth is judged at %d", (frequencies, judged) => {
    expect(judgedTone(frequencies.map((hz) => tone(hz, 0))).frequencyHz).toBe(judged);
  });

  it("no tone, no judgement", () => expect(() => judgedTone([])).toThrow(/without a tone/));

  it("whole cycles are put back once the delay is known", () => {
    const delaySeconds = 2.2e-4; // 792 degrees at 10 kHz
    const tones = [tone(1000, 79.2), tone(10_000, 72)];
    expect(cyclesCounted({ tones, delaySeconds }).map(({ phaseDegrees }) => phaseDegrees)).toEqual([
      79.2, 792,
    ]);
    const negative = cyclesCounted({ tones: [tone(10_000, -72)], delaySeconds: -delaySeconds });
    expect(negative[0].phaseDegrees).toBeCloseTo(-792, 9);
    expect(cyclesCounted({ tones, delaySeconds: null })).toEqual(tones);
  });
});
