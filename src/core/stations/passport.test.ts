import { describe, expect, it } from "vitest";
import type { ReturnedPass } from "@/core/returned/returned";
import type { PassNow } from "@/core/returned/heard-pass";
import { PRESETS } from "@/core/signals/presets";
import { biasWanted, passportOf } from "./passport";

const told = (top: number | null, treble: number | null) => {
  const known = (value: number | null) => (value === null ? null : { value, uncertainty: 0.1 });
  return { top: known(top), treble: known(treble) };
};

describe("bias wanted, from how a high tone comes back", () => {
  // the table of 15 kHz less that of 400 Hz, which is nearly that of 315 Hz
  it.each([
    [0, 0],
    [2.9, 2],
    [4.9, 3.8],
    [-3.8, -2],
    [1.45, 1],
  ])("at cassette speed, %f dB of 15 kHz re 400 Hz: %f dB more", (value, wanted) => {
    const known = biasWanted(told(value, 0), 4.76)!;
    expect(Math.abs(known.value - wanted)).toBeLessThan(0.15);
    expect(known.uncertainty).toBeGreaterThan(0.15);
  });

  // 10 kHz acts there as 15 kHz does at cassette speed, and 400 Hz as 600 Hz
  it.each([
    [2.8, 2],
    [-3.6, -2],
    [0, 0],
  ])("at 19.05 cm/s, %f dB of 10 kHz re 400 Hz: %f dB more, whatever 15 kHz says", (value, wanted) => {
    expect(Math.abs(biasWanted(told(9, value), 19.05)!.value - wanted)).toBeLessThan(0.2);
  });

  it("at 38.1 cm/s 15 kHz tells again, which acts as 12.9 kHz does at cassette speed", () => {
    expect(Math.abs(biasWanted(told(1.25, 9), 38.1)!.value - 0.9)).toBeLessThan(0.15);
    expect(biasWanted(told(null, 1), 38.1)).toBeNull();
  });

  it("beyond the table, at 9.53 cm/s, and of a tone that was not heard, it cannot be told", () => {
    expect(biasWanted(told(9, 0), 4.76)).toBeNull();
    expect(biasWanted(told(-12, 0), 4.76)).toBeNull();
    expect(biasWanted(told(1, 1), 9.53)).toBeNull();
    expect(biasWanted(told(null, 1), 4.76)).toBeNull();
  });
});

describe("the passport of a pass in which a tone was lost", () => {
  const { segments } = PRESETS.find(({ id }) => id === "passport")!;
  /** Playback minus input of each tone of the sequence; tones without are not in the pass. */
  const passOf = (levelsDb: Record<number, number>): PassNow => ({
    pass: 1,
    segments: Object.entries(levelsDb).map(([index, levelDb]): ReturnedPass["segments"][number] => {
      const sent = segments[Number(index)];
      return {
        index: Number(index),
        kind: "sine",
        startSeconds: 0,
        endSeconds: 4,
        channels: [
          {
            channel: "mono",
            kind: "sine",
            frequencyHz: sent.kind === "sine" ? sent.frequencyHz : NaN,
            levelDb,
            uncertaintyDb: 0.02,
            spreadDb: 0,
            thirdPercent: null,
            thirdMeasurable: false,
            clipped: false,
          },
        ],
      };
    }),
    sequenceId: "passport",
    startSeconds: 0,
    endSeconds: 60,
    whole: true,
    hears: "tape",
    told: 0,
  });
  const recorded = (levelsDb: Record<number, number>) => ({
    pass: passOf(levelsDb),
    source: null,
    agoSeconds: 0,
    turnsSince: 0,
    fresh: true,
  });

  it("each of the others keeps its own frequency", () => {
    const [whole] = passportOf(recorded({ 0: -1, 1: -1.5, 2: 2, 3: 0.5 }), 1);
    expect(whole.top!.value).toBeCloseTo(3.5, 9);
    expect(whole.treble!.value).toBeCloseTo(2, 9);
    const [lost] = passportOf(recorded({ 0: -1, 2: 2, 3: 0.5 }), 1);
    expect(lost.sensitivity!.value).toBe(-1);
    expect(lost).toMatchObject({ middle: null, top: null, treble: null });
  });
});
