import { describe, expect, it } from "vitest";
import type { PassNow, ReturnedNow } from "@/core/returned/heard-pass";
import type { ReturnedTone } from "@/core/returned/returned";
import { aJob, aMachine, anAdjustment } from "@/testing/records";
import type { Heard } from "./heard";
import type { OnTheBench } from "./on-the-bench";
import { recordedAt, recordedHere } from "./recorded";

const tone = (channel: string, levelDb: number, clipped = false): ReturnedTone & { channel: string } => ({
  kind: "sine",
  channel,
  frequencyHz: 315,
  levelDb,
  uncertaintyDb: 0.02,
  spreadDb: 0.01,
  thirdPercent: 1,
  thirdMeasurable: true,
  clipped,
});
const pass = (fields: Partial<PassNow>, right = -1, clipped = false): PassNow => ({
  pass: 1,
  sequenceId: "bias",
  startSeconds: 10,
  endSeconds: 30,
  whole: true,
  hears: "tape",
  told: 0,
  segments: [
    {
      index: 0,
      kind: "sine",
      startSeconds: 11,
      endSeconds: 15,
      channels: [tone("left", -1, clipped), tone("right", right)],
    },
  ],
  ...fields,
});
/** The same with a level that swings. */
const swinging = (one: PassNow): PassNow => ({
  ...one,
  segments: one.segments.map((segment) => ({
    ...segment,
    channels: segment.channels.map((channel) => ({ ...channel, spreadDb: 1.6 })) as typeof segment.channels,
  })),
});
const bench = (
  returned: Partial<ReturnedNow>,
  { heads = 3, blanks = false, turns = 0, pace = 1 } = {},
): OnTheBench => {
  const records = {
    job: aJob(blanks ? { blankTapes: [{ id: "b", name: "b" }] } : {}),
    machine: aMachine({ monitorsTape: heads === 3, records: true }),
    readings: [],
    adjustments: Array.from({ length: turns }, (_, i) => anAdjustment({ id: `a${i}` })),
  };
  const heard = {
    source: { kind: "practice", name: "" },
    pace,
    returned: { sequenceId: "bias", passes: [], told: 0, nowSeconds: 60, ...returned },
  } as unknown as Heard;
  return { records, here: records, heard, circumstances: {} } as unknown as OnTheBench;
};

describe("what was recorded, and at which setting", () => {
  it.each<[string, OnTheBench, RegExp | null]>([
    ["nothing heard", bench({}), /None of the sequence/],
    ["no tape chosen", bench({ passes: [pass({})] }, { blanks: true }), /which blank tape/],
    ["monitor left on source", bench({ passes: [pass({ hears: "source" })] }), /switch the monitor to tape/],
    [
      "two heads, recording",
      bench({ passes: [pass({ hears: "source", whole: false })] }, { heads: 2 }),
      /to its end, then rewind/,
    ],
    [
      "two heads, recorded",
      bench({ passes: [pass({ hears: "source" })] }, { heads: 2 }),
      /Rewind and play it/,
    ],
    ["neither told", bench({ passes: [pass({ hears: "unclear" })] }), /cannot be told yet/],
    ["broken off", bench({ passes: [pass({ whole: false })] }), /broken off/],
    ["turned while it played", bench({ passes: [pass({ told: null })] }), /turned while/],
    ["turned since", bench({ passes: [pass({})], told: 1 }), /turned since/],
    [
      "neither told of the last one",
      bench({
        passes: [pass({}), pass({ hears: "unclear", told: 1, startSeconds: 40, endSeconds: 55 })],
        told: 1,
      }),
      /source or the tape cannot be told: let/,
    ],
    ["clipped", bench({ passes: [pass({}, -1, true)] }), /clips/],
    ["over old programme", bench({ passes: [swinging(pass({}))] }), /old programme/],
    ["one channel dead", bench({ passes: [pass({}, -60)] }), /right channel/],
    ["sound", bench({ passes: [pass({})] }), null],
  ])("%s", (_, on, says) => {
    const { lacks } = recordedHere(on);
    if (says === null) expect(lacks).toBeNull();
    else expect(lacks).toMatch(says);
  });

  it("two heads: a pass is of the setting at which its source was heard, by its number", () => {
    const passes = [
      pass({ hears: "source", pass: 1, told: 0, endSeconds: 30 }),
      pass({ hears: "source", pass: 2, told: 1, startSeconds: 32, endSeconds: 50 }),
      pass({ pass: 1, told: 1, startSeconds: 60, endSeconds: 80 }),
      pass({ pass: 2, told: 1, startSeconds: 82, endSeconds: 100 }),
    ];
    const { recorded, lacks } = recordedHere(
      bench({ passes, told: 1, nowSeconds: 110 }, { heads: 2, turns: 1 }),
    );
    expect(recorded.map(({ turnsSince, agoSeconds }) => [turnsSince, agoSeconds])).toEqual([
      [1, 80],
      [0, 60],
    ]);
    expect(lacks).toBeNull();
  });

  it("two heads: what was recorded unheard is of the present setting only where nothing was turned", () => {
    const passes = [pass({})];
    expect(recordedHere(bench({ passes }, { heads: 2 })).lacks).toBeNull();
    expect(recordedHere(bench({ passes }, { heads: 2, turns: 1 })).lacks).toMatch(/nobody knows/);
  });

  it.each<[string, number, RegExp | null]>([
    ["as it was", -11.9, null],
    ["turned down since", -9, /lower than when 0 was set/],
    ["turned up since", -15, /higher than when 0 was set/],
  ])("what goes in is held against the 0 that was set: %s", (_, zeroDbfs, says) => {
    // the source of these passes came in a decibel lower than it was sent, at −13 dBFS
    const passes = [pass({ hears: "source", pass: 1 }, -1), pass({ startSeconds: 40, endSeconds: 55 })];
    const on = bench({ passes });
    const inputDbfs = [zeroDbfs - 1, zeroDbfs - 1];
    on.here.job = { ...on.here.job, zero: { at: "2026-11-26T10:00:00.000Z", sendDb: -6, inputDbfs } };
    const { lacks } = recordedHere(on);
    if (says === null) expect(lacks).toBeNull();
    else expect(lacks).toMatch(says);
  });

  it("a reading is of the time of its recording", () => {
    expect(recordedAt("2026-11-26T10:00:30.000Z", 12.5)).toBe("2026-11-26T10:00:17.500Z");
  });

  it("on a machine that runs faster than the clock, of the clock's time: after the turn that came before it", () => {
    const ago = (pace: number) =>
      recordedHere(bench({ passes: [pass({ endSeconds: 40 })] }, { pace })).recorded[0].agoSeconds;
    expect(ago(1)).toBe(20);
    expect(ago(4)).toBe(5);
  });
});
