import { describe, expect, it } from "vitest";
import { channelLeakCauses, otherDirectionCauses } from "./separation";

const across = (lowDb: number, highDb: number | null, uncertaintyDb = 0.5) => [
  { frequencyHz: 1000, db: lowDb, uncertaintyDb },
  ...(highDb === null ? [] : [{ frequencyHz: 10_000, db: highDb, uncertaintyDb }]),
];

describe("channels that leak into each other", () => {
  it("as much in the treble: what both share; more there: leads side by side", () => {
    const flat = channelLeakCauses([{ channel: "left", across: across(-26, -25) }]);
    expect(flat).toHaveLength(1);
    expect(flat[0]).toMatch(/left the other is only 26 dB down.*both share/);
    expect(channelLeakCauses([{ channel: "left", across: across(-26, -12) }])[0]).toMatch(
      /14 dB more: leads/,
    );
    expect(channelLeakCauses([{ channel: "left", across: across(-26, null) }])[0]).toMatch(/not heard/);
  });

  it("the channel that hears more is named, and nothing is accused that is usual, unsure or unheard", () => {
    const both = [
      { channel: "left", across: across(-28, -28) },
      { channel: "right", across: across(-22, -22) },
    ];
    expect(channelLeakCauses(both)[0]).toMatch(/in the right/);
    expect(channelLeakCauses([{ channel: "left", across: across(-45, -20) }])).toEqual([]);
    expect(channelLeakCauses([{ channel: "left", across: across(-29, -29, 2) }])).toEqual([]);
    expect(channelLeakCauses([{ channel: "left", across: [] }])).toEqual([]);
  });
});

describe("tracks of the other direction", () => {
  it("are named with the channel that lies beside them", () => {
    const one = otherDirectionCauses([
      { channel: "left", across: across(-45, -45) },
      { channel: "right", across: across(-30, -33) },
    ]);
    expect(one).toHaveLength(1);
    expect(one[0]).toMatch(/30 dB down.*most in the right.*height/);
    const alike = otherDirectionCauses([
      { channel: "left", across: across(-31, null) },
      { channel: "right", across: across(-30, null) },
    ]);
    expect(alike[0]).not.toMatch(/most in/);
  });

  it("far enough down, or hidden, accuse nothing", () => {
    expect(otherDirectionCauses([{ channel: "left", across: across(-55, -50) }])).toEqual([]);
    expect(otherDirectionCauses([{ channel: "left", across: [] }])).toEqual([]);
  });
});
