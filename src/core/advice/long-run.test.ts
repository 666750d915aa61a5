import { describe, expect, it } from "vitest";
import type { WatchTrack } from "@/core/measure/watch-log";
import { longRunOf } from "./long-run";

/** Ten minutes in seconds, each quantity by a function of the second. */
const track = (
  speed: (s: number) => number | null,
  level: (s: number) => number = () => -12,
  flutter: (s: number) => number | null = () => 0.05,
  missed: WatchTrack["missed"] = [],
): WatchTrack => {
  const seconds = Array.from({ length: 600 }, (_, s) => s);
  return {
    startSeconds: 0,
    stepSeconds: 1,
    speedPercent: seconds.map(speed),
    flutterPercent: seconds.map(flutter),
    levelDb: seconds.map(level),
    events: [],
    spectra: [],
    missed,
  };
};

describe("what goes in a long run", () => {
  it.each<[string, WatchTrack, Array<[string, number]>]>([
    ["a sound one: nothing", track(() => 0.1), []],
    [
      "speed at the second at which it leaves its limit",
      track((s) => (s < 400 ? 0 : -0.8)),
      [["speed", 400]],
    ],
    ["a slip of five seconds is no end", track((s) => (s >= 400 && s < 405 ? -5 : 0)), []],
    [
      "it is counted through a gap in the tone",
      track((s) => (s < 300 ? 0 : s < 320 ? null : 1)),
      [["speed", 320]],
    ],
    [
      "level, re what it was at first",
      track(
        () => 0,
        (s) => (s < 500 ? -12 : -16),
      ),
      [["level", 500]],
    ],
    [
      "what was faint from the beginning has not gone",
      track(
        () => 0,
        () => -40,
      ),
      [],
    ],
    [
      "one after the other",
      track(
        (s) => (s < 450 ? 0 : 2),
        (s) => (s < 200 ? -12 : -20),
      ),
      [
        ["level", 200],
        ["speed", 450],
      ],
    ],
    [
      "flutter",
      track(
        () => 0,
        () => -12,
        (s) => (s < 100 ? 0.05 : 0.4),
      ),
      [["flutter", 100]],
    ],
  ])("%s", (_, run, went) => {
    expect(longRunOf(run, 0.5, 0.15).went.map(({ what, atSeconds }) => [what, atSeconds])).toEqual(went);
  });

  it("says start, middle and end, how much was heard, and what nobody heard", () => {
    const run = longRunOf(
      track((s) => (s >= 100 && s < 130 ? null : s / 1000), undefined, undefined, [
        { fromSeconds: 100, toSeconds: 130 },
      ]),
      5,
      null,
    );
    expect(run.missedSeconds).toBe(30);
    expect(run.heardSeconds).toBe(570);
    const [start, middle, end] = run.speeds;
    expect(start).toBeCloseTo(0.03, 2);
    expect(middle).toBeCloseTo(0.3, 2);
    expect(end).toBeCloseTo(0.57, 2);
  });
});
