import { describe, expect, it } from "vitest";
import type { PassNow } from "@/core/returned/heard-pass";
import type { ReturnedChannel } from "@/core/returned/returned";
import { erasedOf } from "./erased";

const SILENCE = {
  kind: "silence",
  channel: "left",
  residualDb: -61,
  residualUncertaintyDb: 0.2,
  residualMeasurable: true,
  noise: { flatDbfs: -60, aDbfs: -66, itu468Dbfs: -54 },
  hum: [{ frequencyHz: 50, levelDb: -70 }],
  doubt: null,
} as const satisfies ReturnedChannel;
const tone = (levelDb: number | null): ReturnedChannel => ({
  kind: "sine",
  channel: "left",
  frequencyHz: 1000,
  levelDb,
  crosstalkDb: levelDb === null ? -48 : undefined,
  uncertaintyDb: 0.1,
  spreadDb: 0,
  thirdPercent: null,
  thirdMeasurable: false,
  clipped: false,
});
const left = (channels: ReturnedChannel[]) => {
  const segments = channels.map((one, index) => ({
    index,
    kind: one.kind,
    startSeconds: 0,
    endSeconds: 1,
    channels: [one],
  }));
  const pass = { segments } as unknown as PassNow;
  return erasedOf({ pass }, 2).at(0);
};

describe("what a pass of the erase sequence tells of a channel", () => {
  it("noise and hum are re what comes back at 0, the tone on that channel alone", () => {
    // 0 is sent at −12 dBFS and comes back 1.5 dB lower
    const found = left([tone(-3), SILENCE, tone(-1.5), tone(null)])!;
    expect(found.depth).toEqual({ db: 61, uncertaintyDb: 0.2, hidden: false });
    expect(found.noise!.aDb).toBeCloseTo(-66 + 13.5, 9);
    expect(found.hum[0].levelDb).toBeCloseTo(-70 + 13.5, 9);
    expect(found.crosstalkDb).toBe(-48);
  });

  it("where 0 was not heard neither noise nor hum is told re it", () => {
    const found = left([tone(-3), SILENCE])!;
    expect(found.depth!.db).toBe(61);
    expect(found.noise).toBeNull();
    expect(found.hum).toEqual([]);
  });

  it("a pass without its silence tells nothing", () => expect(left([tone(-3), tone(-1)])).toBeUndefined());
});
