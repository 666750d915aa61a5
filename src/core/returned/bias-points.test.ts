import { describe, expect, it } from "vitest";
import { biasHeard, followsLevel } from "./bias-points";
import type { ReturnedPass } from "./returned";

const SENT = [-32, -32, -12];
/** A pass of three tones of one channel, with playback minus input of each. */
const pass = (middleDb: number, highDb: number, loudDb: number): ReturnedPass => ({
  pass: 1,
  segments: [315, 10_000, 315].map((frequencyHz, index) => ({
    index,
    kind: "sine",
    startSeconds: 10 * index,
    endSeconds: 10 * index + 9,
    channels: [
      {
        channel: "mono",
        kind: "sine",
        frequencyHz,
        levelDb: [middleDb, highDb, loudDb][index],
        uncertaintyDb: 0.02,
        spreadDb: 0.01,
        thirdPercent: 1,
        thirdMeasurable: true,
        clipped: false,
      },
    ],
  })),
});

describe("the gain of the path, from the quiet and the loud tone of one frequency", () => {
  it.each([
    ["a tape that compresses a little", -0.6, false],
    ["a limiter or automatic level control", -9, true],
    ["an expander, or noise reduction on playback only", 6, true],
  ])("%s: %f dB", (_, changeDb, follows) => {
    const [heard] = biasHeard(pass(-1, 0.5, -1 + changeDb), (i) => SENT[i], 1);
    expect(heard!.gainChangeDb).toBeCloseTo(changeDb, 9);
    expect(followsLevel(heard!)).toBe(follows);
  });
});
