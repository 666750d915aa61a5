import { describe, expect, it } from "vitest";
import { PracticeDeck } from "./practice-deck";
import { practiceParameters } from "./practice-machines";

describe("a practice machine as it came in", () => {
  it("at its second speed has what is different there, and the condition's part of it", () => {
    const slow = practiceParameters("tarnvik-t-2", "speeds-differ", 19.05);
    const fast = practiceParameters("tarnvik-t-2", "speeds-differ", 38.1);
    expect([slow, fast].map((p) => p["speed.errorPercent"])).toEqual([-0.8, 0.6]);
    expect([slow, fast].map((p) => p["playback.t2Microseconds"])).toEqual([70, 35]);
    expect(fast.speedCmPerS).toBe(38.1);
  });

  it("a machine that is not known is a cassette recorder with what was chosen for it", () => {
    const any = practiceParameters("my-own", "fast", 4.76);
    expect(any["speed.errorPercent"]).toBe(1.2);
    expect(any["deck.heads"]).toBe(2);
    expect(practiceParameters("my-own", "no such condition", 4.76)["speed.errorPercent"]).toBe(0);
  });

  it.each([
    [19.05, 1.8, 0.3],
    [38.1, 0.5, 1.6],
  ])("at %d cm/s each trimmer moves the speed by its own amount", (speedCmPerS, first, second) => {
    const speedAfter = (turns: [number, number]) => {
      const parameters = {
        ...practiceParameters("tarnvik-t-2", "sound", speedCmPerS),
        "wander.percent": 0,
        "trimmer.backlashTurns": 0,
        "scrape.percent": 0,
        "startUp.seconds": 0,
      };
      const { transport } = new PracticeDeck({ parameters, sampleRateHz: 8000, toneHz: 1000 });
      turns.forEach((turn, i) => transport.trimmers[i].turn(turn));
      let sum = 0;
      const speeds = new Float64Array(40_000);
      transport.run(speeds);
      for (const speed of speeds) sum += speed;
      return (100 * sum) / 40_000;
    };
    const rest = speedAfter([0, 0]);
    expect(speedAfter([1, 0]) - rest).toBeCloseTo(first, 1);
    expect(speedAfter([0, 1]) - rest).toBeCloseTo(second, 1);
  });
});
