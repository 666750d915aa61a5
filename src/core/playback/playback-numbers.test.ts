import { describe, expect, it } from "vitest";
import { TOLERANCE_CLASSES } from "@/core/standards/tolerance-classes";
import { aMachine, aTape } from "@/testing/records";
import { playbackNumbers } from "./playback-numbers";
import type { ResponseDoubt, ResponseRun } from "./response-runs";

const dead = (channel: number): ResponseDoubt => ({ kind: "dead", channel, says: "silent" });
const run = (doubts: ResponseDoubt[], from: ResponseRun["from"] = "bands"): ResponseRun => ({
  from,
  referenceHz: 315,
  channels: ["left", "right"].map((channel) => ({ channel, points: [] })),
  doubts,
  endSeconds: from === "bands" ? 10 : 20,
  whole: true,
  fresh: true,
});
const responseOf = (channels: 1 | 2, responses: ResponseRun[]) =>
  playbackNumbers(
    { tape: aTape(), machine: aMachine({ channels }), corridor: TOLERANCE_CLASSES.hifi.response },
    { tones: [], playing: null, azimuth: null, phase: null, responses },
    null,
  ).response;
const doubtsOf = (channels: 1 | 2, responses: ResponseRun[]) => responseOf(channels, responses).doubts;

describe("what makes a response doubtful on the bench", () => {
  const clipped: ResponseDoubt = { kind: "clipped", says: "clipped" };

  it("is that of the run it is read from", () => {
    expect(doubtsOf(2, [run([clipped, dead(1)])])).toEqual([clipped, dead(1)]);
    expect(doubtsOf(2, [])).toEqual([]);
  });

  it("is not the silence of the channel that a machine of one has not", () => {
    expect(doubtsOf(1, [run([clipped, dead(1)])])).toEqual([clipped]);
    expect(doubtsOf(1, [run([dead(0)])])).toEqual([dead(0)]);
  });

  it("a channel that is silent while the other plays is missing, of a machine that has two", () => {
    const point = {
      frequencyHz: 1000,
      levelDb: 0,
      spreadDb: 0,
      uncertaintyDb: 0.1,
      rawDb: 0,
      bandLevelDb: 0,
      certificateDb: 0,
      fringingDb: 0,
      equalisationDb: 0,
    };
    const half = {
      ...run([dead(1)]),
      channels: [
        { channel: "left", points: [point, { ...point, frequencyHz: 10_000 }] },
        { channel: "right", points: [] },
      ],
    };
    const told = (channels: 1 | 2) => responseOf(channels, [half]);
    expect(told(2).missing).toContain("the right channel, which is silent");
    expect(told(2).channels.map(({ silent }) => silent)).toEqual([false, true]);
    expect(told(1).missing.join()).not.toContain("silent");
    expect(told(1).channels).toHaveLength(1);

    // what it is relative to is 0 dB by definition: a single tone says nothing
    const alone = {
      ...half,
      referenceHz: point.frequencyHz,
      channels: half.channels.map((one) => ({ ...one, points: one.points.slice(0, 1) })),
    };
    expect(responseOf(2, [alone])).toMatchObject({ from: null, channels: [] });
  });
});
